import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { shootLogQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { uuid } from "../../lib/uuid";
import { sayNotSaved, toaster } from "../../shell/toaster";

/** So long may the words of an entry of the log be. */
const WORDS_CHARACTERS = 500;

type Shot = Schemas["StoredShot"] | undefined;

/** Keeps something of a shot in the log of its shoot, and with it in the records. */
function useKeepEntry<Of>(
  shot: Shot,
  title: string,
  entryOf: (of: Of, shot: Schemas["StoredShot"]) => Promise<Partial<Schemas["StoredFieldEntryFields"]>>,
) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (of: Of) => {
      if (!shot?.shootId) throw new Error("Choose a shot of a shoot");
      const { words = "", kind = "outcome", ...entry } = await entryOf(of, shot);
      return unwrap(
        api.PUT("/api/shoots/{id}/log/{entry}", {
          params: { path: { id: shot.shootId, entry: uuid() } },
          body: {
            ...entry,
            kind,
            at: new Date().toISOString(),
            shotId: shot.id,
            words: `${shot.name}: ${words}`.slice(0, WORDS_CHARACTERS),
          },
        }),
      );
    },
    onSuccess: () => {
      toaster.create({ title: `${title} ${shot?.name}` });
      if (shot?.shootId) queries.invalidateQueries({ queryKey: shootLogQuery(shot.shootId).queryKey });
      queries.invalidateQueries({ queryKey: ["records"] });
    },
    onError: sayNotSaved,
  });
}

/** Keeps what came out of a shot. */
export const useKeepOutcome = (shot: Shot) =>
  useKeepEntry(shot, "Saved as the outcome of", async (of: { words: string; outcome: Schemas["Outcome"] }) => of);

/** Keeps whether a take ghosts, as a trial of its camera's stabiliser at the shutter that it took: the limit follows. */
export const useKeepTrial = (shot: Shot) =>
  useKeepEntry(
    shot,
    "Counts as a shutter test with",
    async ({ grade, took }: { grade: "good" | "bad"; took?: number }, { answer }) => {
      const plan = await unwrap(api.POST("/api/calc/stepped", { body: answer.request }));
      const { shutterS, iso } = answer.given.chosen;
      return {
        kind: "step",
        words: `a take ${grade === "bad" ? "ghosts" : "does not ghost"}`,
        tried: {
          mode: plan.mode,
          activity: plan.activity,
          measured: plan.measured,
          shakeDegS: plan.shakeDegS,
          computedS: plan.computedS,
          shutterS: took ?? shutterS,
          grade,
          ...(grade === "bad" && { why: "ghost" }),
          iso,
          isoCeiling: plan.isoCeiling,
        },
      };
    },
  );
