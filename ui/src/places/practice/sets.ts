import * as z from "zod/mini";
import { ALL, type Kind } from "./kinds";

const NAME = "1 to 80 characters";
const GRADE = "1, 2 or 3, or left out";
const COUNT = `1 to ${ALL.length} kinds of question`;

const asked = z.object(
  {
    kind: z.enum(ALL as [Kind, ...Kind[]], `one of ${ALL.join(", ")}`),
    grade: z.optional(z.int(GRADE).check(z.minimum(1, GRADE), z.maximum(3, GRADE))),
  },
  'a kind of question, as in {"kind": "count"}',
);

/** What is practised: kinds, and how hard; a kind without a grade is asked as it fits. */
const schema = z.object(
  {
    format: z.literal("pinhole-practice-set", "only pinhole-practice-set is read"),
    version: z.literal(1, "only 1 is read"),
    name: z.string(NAME).check(z.minLength(1, NAME), z.maxLength(80, NAME)),
    kinds: z.array(asked, COUNT).check(z.minLength(1, COUNT), z.maxLength(ALL.length, COUNT)),
  },
  "a set of questions",
);

export type PracticeSet = z.infer<typeof schema>;

export const EVERYTHING: PracticeSet = {
  format: "pinhole-practice-set",
  version: 1,
  name: "Everything",
  kinds: ALL.map((kind) => ({ kind })),
};

const KEPT = "pinhole.practiceSet";

/** How much of a wrong value is said back, in characters. */
const LONGEST_SHOWN = 80;

/** Reads a set that somebody shared; what is wrong with it is thrown in words, as `kinds[2].grade is 7: 1, 2 or 3`. */
export function readSet(text: string): PracticeSet {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error("It is no JSON");
  }
  const read = schema.safeParse(value, { reportInput: true });
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  const given = JSON.stringify(issue?.input)?.slice(0, LONGEST_SHOWN);
  const found = given === undefined ? "is missing" : `is ${given}`;
  throw new Error(`${z.core.toDotPath(issue?.path ?? []) || "the file"} ${found}: ${issue?.message}`);
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
