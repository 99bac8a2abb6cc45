import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { shootLogQuery } from "../../api/queries";
import { uuid } from "../../lib/uuid";
import { toaster } from "../../shell/toaster";

/** So long may the words of an entry of the log be. */
const WORDS_CHARACTERS = 500;

/** Keeps what came out of a shot in the log of its shoot. */
export function useKeepOutcome(shot: Schemas["StoredShot"] | undefined) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ words, outcome }: { words: string; outcome: Schemas["Outcome"] }) => {
      if (!shot?.shootId) throw new Error("Choose a shot of a shoot");
      return unwrap(
        api.PUT("/api/shoots/{id}/log/{entry}", {
          params: { path: { id: shot.shootId, entry: uuid() } },
          body: {
            kind: "outcome",
            at: new Date().toISOString(),
            shotId: shot.id,
            words: `${shot.name}: ${words}`.slice(0, WORDS_CHARACTERS),
            outcome,
          },
        }),
      );
    },
    onSuccess: () => {
      toaster.create({ title: `Saved as the outcome of ${shot?.name}` });
      if (shot?.shootId) queries.invalidateQueries({ queryKey: shootLogQuery(shot.shootId).queryKey });
    },
    onError: (error) => toaster.create({ title: "Not saved", description: error.message }),
  });
}
