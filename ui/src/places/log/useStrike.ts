import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { putIn } from "../../api/putIn";
import { recordsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { useTaughtAnew } from "../../api/useTaughtAnew";
import { sayNotSaved, toaster } from "../../shell/toaster";

type StoredRecord = Schemas["StoredRecord"];

/** Who strikes or doubts, as it is shown. */
const HERE = "this desk";

/** Sets right what a record says was seen. */
export function useCorrect() {
  const queries = useQueryClient();
  const anew = useTaughtAnew();
  return useMutation({
    mutationFn: ({ record, ev100 }: { record: StoredRecord; ev100: number }) => {
      const { id, version, createdAt: _, updatedAt: __, deletedAt: ___, seen, ...fields } = record;
      if (!seen) throw new Error("nothing was seen");
      const body = { ...fields, seen: { ...seen, ev100 } };
      return unwrap(api.PUT("/api/records/{id}", { params: { path: { id }, query: { version } }, body }));
    },
    onSuccess: (record) => {
      putIn(queries, recordsQuery, record);
      toaster.create({ title: "Corrected" });
      anew();
    },
    onError: sayNotSaved,
  });
}

/** Says that a light seen is to count as if it was judged by eye, or in full again. */
export function useDoubt() {
  const queries = useQueryClient();
  const anew = useTaughtAnew();
  return useMutation({
    mutationFn: (record: StoredRecord) => {
      const { id, version, createdAt: _, updatedAt: __, deletedAt: ___, doubted, ...fields } = record;
      const body = doubted ? fields : { ...fields, doubted: { at: new Date().toISOString(), by: HERE } };
      return unwrap(api.PUT("/api/records/{id}", { params: { path: { id }, query: { version } }, body }));
    },
    onSuccess: (record) => {
      putIn(queries, recordsQuery, record);
      toaster.create({ title: record.doubted ? "Doubted: it counts as if judged by eye" : "Counts in full again" });
      anew();
    },
    onError: sayNotSaved,
  });
}

/** Takes a record out of what teaches, or back into it; it is kept, and shows who did that. */
export function useStrike() {
  const queries = useQueryClient();
  const anew = useTaughtAnew();
  return useMutation({
    mutationFn: ({ record, why }: { record: StoredRecord; why?: string }) => {
      const { id, version, createdAt: _, updatedAt: __, deletedAt: ___, struck, ...fields } = record;
      return unwrap(
        api.PUT("/api/records/{id}", {
          params: { path: { id }, query: { version } },
          body: struck
            ? fields
            : { ...fields, struck: { at: new Date().toISOString(), by: HERE, ...(why && { why }) } },
        }),
      );
    },
    onSuccess: (record) => {
      putIn(queries, recordsQuery, record);
      toaster.create({ title: record.struck ? "Struck: it teaches nothing now" : "Counts again" });
      anew();
    },
    onError: sayNotSaved,
  });
}
