import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { filtersQuery } from "../../api/queries";
import { toaster } from "../../shell/toaster";
import { fieldsOf } from "../kit/FilterSheet";

type Fields = Schemas["StoredFilterFields"];

/** So long may a note of a filter's history be. */
const NOTE_CHARACTERS = 200;

/** Keeps a measurement with a filter, with its date and the files it came from. */
export function useKeepMeasured() {
  const queries = useQueryClient();
  const { data: filters = [] } = useQuery(filtersQuery);
  const keep = useMutation({
    mutationFn: ({ id, fields, note }: { id: string; fields: Partial<Fields>; note: string }) => {
      const filter = filters.find((f) => f.id === id);
      if (!filter) throw new Error("Choose a filter");
      const history = [
        ...(filter.history ?? []),
        { at: new Date().toISOString(), what: "measured" as const, note: note.slice(0, NOTE_CHARACTERS) },
      ];
      const body = { ...fieldsOf(filter), ...fields, history };
      return unwrap(
        api.PUT("/api/filters/{id}", { params: { path: { id }, query: { version: filter.version } }, body }),
      );
    },
    onSuccess: (filter) => {
      toaster.create({ title: `Saved with ${filter.title}`, description: "Every answer uses it from now on" });
      queries.invalidateQueries({ queryKey: filtersQuery.queryKey });
      queries.invalidateQueries({ queryKey: ["bench"] });
    },
    onError: (error) => toaster.create({ title: "Not saved", description: error.message }),
  });
  return { filters, keep };
}
