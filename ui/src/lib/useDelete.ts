import { type QueryKey, useMutation, useQueryClient } from "@tanstack/react-query";
import { offerUndo, toaster } from "../shell/toaster";

interface Deletion {
  /** What is deleted, for the note: "“Dawn walk”". */
  what: string;
  /** The list that it leaves. */
  queryKey: QueryKey;
  remove: () => Promise<{ version: number }>;
  restore: (version: number) => Promise<unknown>;
}

/** Deletes at once and offers it back. */
export function useDelete({ what, queryKey, remove, restore }: Deletion) {
  const queries = useQueryClient();
  const refresh = () => queries.invalidateQueries({ queryKey });
  return useMutation({
    mutationFn: remove,
    onSuccess: ({ version }) =>
      offerUndo(`${what} deleted`, () => {
        restore(version)
          .catch((error: Error) =>
            toaster.create({ title: `${what} was not brought back`, description: error.message }),
          )
          .finally(refresh);
      }),
    onError: (error) => toaster.create({ title: `${what} was not deleted`, description: error.message }),
    onSettled: refresh,
  });
}
