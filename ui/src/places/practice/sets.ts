import { z } from "zod";
import { ALL, type Kind } from "./kinds";

/** What is practised: kinds, and how hard; a kind without a grade is asked as it fits. */
const schema = z.object({
  format: z.literal("pinhole-practice-set"),
  version: z.literal(1),
  name: z.string().min(1).max(80),
  kinds: z
    .array(z.object({ kind: z.enum(ALL as [Kind, ...Kind[]]), grade: z.number().int().min(1).max(3).optional() }))
    .min(1)
    .max(ALL.length),
});

export type PracticeSet = z.infer<typeof schema>;

export const EVERYTHING: PracticeSet = {
  format: "pinhole-practice-set",
  version: 1,
  name: "Everything",
  kinds: ALL.map((kind) => ({ kind })),
};

const KEPT = "pinhole.practiceSet";

/** Reads a set that somebody shared; what is wrong with it is thrown in words. */
export function readSet(text: string): PracticeSet {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error("It is no JSON");
  }
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Error(`${issue?.path.join(".") || "the file"}: ${issue?.message ?? "it is no set of questions"}`);
}

/** The set that this device practises. */
export function keptSet(): PracticeSet {
  try {
    return readSet(localStorage.getItem(KEPT) ?? "");
  } catch {
    return EVERYTHING;
  }
}

export function keepSet(set: PracticeSet): void {
  localStorage.setItem(KEPT, JSON.stringify(set));
}
