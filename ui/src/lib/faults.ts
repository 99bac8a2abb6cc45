import { Problem } from "../api/client";

/** Looks up what is wrong with a field of the request that failed. */
export type FaultOf = (field: string) => string | undefined;

/** The lookup for an error: a field's own fault, or that of a part of it. */
export function faultsOf(error: unknown): FaultOf {
  if (!(error instanceof Problem)) return () => undefined;
  return (field) =>
    error.faults.find((f) => f.field === field || f.field.startsWith(`${field}[`) || f.field.startsWith(`${field}.`))
      ?.allowed;
}

/** What is wrong, in words for the one field that was just typed: what was given, and what is allowed. */
export function faultWords(error: Error): string {
  const fault = error instanceof Problem ? error.faults[0] : undefined;
  if (!fault) return error.message;
  return fault.value === undefined || fault.value === "" ? fault.allowed : `${fault.value}: ${fault.allowed}`;
}

/** Whether it is the gear of which nothing can be told, and nothing that was typed. */
export const isOfGear = (error: unknown): boolean =>
  error instanceof Problem && error.faults.length > 0 && error.faults.every((f) => f.field === "kit");
