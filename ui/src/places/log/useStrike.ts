import { useMutation, useQueryClient } from "@tanstack/react-query";
import { anew as askedAnew } from "../../api/anew";
import { api, type Schemas, unwrap } from "../../api/client";
import { toaster } from "../../shell/toaster";

type StoredRecord = Schemas["StoredRecord"];

/** What the log teaches is in every answer: when it changes they are asked anew. */
export function useTaughtAnew() {
  const queries = useQueryClient();
  return () => {
    for (const key of ["records", "bench", "shots", "day"]) void askedAnew(queries, [key]);
  };
}

/** Sets right what a record says was seen. */
export function useCorrect() {
  const anew = useTaughtAnew();
  return useMutation({
    mutationFn: ({ record, ev100 }: { record: StoredRecord; ev100: number }) => {
      const { id, version, createdAt: _, updatedAt: __, deletedAt: ___, seen, ...fields } = record;
      if (!seen) throw new Error("nothing was seen");
      const body = { ...fields, seen: { ...seen, ev100 } };
      return unwrap(api.PUT("/api/records/{id}", { params: { path: { id }, query: { version } }, body }));
    },
    onSuccess: () => {
      toaster.create({ title: "Corrected" });
      anew();
    },
    onError: (error) => toaster.create({ title: "Not saved", description: error.message }),
  });
}

/** Takes a record out of what teaches, or back into it; it is kept, and shows who did that. */
export function useStrike() {
  const anew = useTaughtAnew();
  return useMutation({
    mutationFn: ({ record, why }: { record: StoredRecord; why?: string }) => {
      const { id, version, createdAt: _, updatedAt: __, deletedAt: ___, struck, ...fields } = record;
      return unwrap(
        api.PUT("/api/records/{id}", {
          params: { path: { id }, query: { version } },
          body: struck
            ? fields
            : { ...fields, struck: { at: new Date().toISOString(), by: "this desk", ...(why && { why }) } },
        }),
      );
    },
    onSuccess: (record) => {
      toaster.create({ title: record.struck ? "Struck: it teaches nothing now" : "Counts again" });
      anew();
    },
    onError: (error) => toaster.create({ title: "Not saved", description: error.message }),
  });
}
