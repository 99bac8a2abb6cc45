import { type UseMutationResult, useMutation } from "@tanstack/react-query";
import type { FieldValues, Path, UseFormSetError } from "react-hook-form";
import { Problem } from "../../api/client";

interface Kept<Body, Saved> {
  save: (body: Body) => Promise<Saved>;
  onSaved: (saved: Saved) => void;
  setError: UseFormSetError<FieldValues>;
  /** The paths that have a field. */
  paths: readonly string[];
}

/** Stores a form; what the server finds wrong is said at the field it names. */
export function useKept<Body, Saved>({
  save,
  onSaved,
  setError,
  paths,
}: Kept<Body, Saved>): UseMutationResult<Saved, Error, Body> {
  return useMutation({
    mutationFn: save,
    onSuccess: onSaved,
    onError: (error) => {
      if (!(error instanceof Problem)) return;
      for (const { field, value, allowed } of error.faults) {
        const path = paths.find((p) => field === p || field.startsWith(`${p}[`) || field.startsWith(`${p}.`));
        if (path)
          setError(path as Path<FieldValues>, {
            message: value != null && typeof value !== "object" ? `${String(value)}: ${allowed}` : allowed,
          });
      }
    },
  });
}
