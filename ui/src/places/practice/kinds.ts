import type { Schemas } from "../../api/schemas";

export type Kind = Schemas["PracticeRequest"]["kind"];

/** What the kinds of question are called. */
export const KINDS: Record<Kind, string> = {
  count: "Counting stops",
  direction: "Brighter or darker",
  labels: "Labels on the ring",
  target: "Shutter of an angle",
  filter: "Filter from a reading",
  sky: "Filter from the sky",
  fault: "What is wrong here",
  "with-filter": "Which had a filter",
  "gives-way": "Which demand breaks",
  swap: "Latest minute of a swap",
  hold: "Does it hold",
  order: "Order of the steps",
  lost: "Filter lost: what first",
  polariser: "Polariser",
  range: "A range of light",
};

/** These are asked by pictures, which the server draws. */
const PICTURED: ReadonlySet<Kind> = new Set(["sky", "fault", "with-filter"]);

export const isPictured = (kind: Kind): boolean => PICTURED.has(kind);

export const ALL = Object.keys(KINDS) as Kind[];
