import type { Schemas } from "../../api/schemas";
import { signed } from "../../lib/format";
import { BARE, GONE, together } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { whyBinned } from "../../lib/whyBinned";

type StoredRecord = Schemas["StoredRecord"];

const SEEN_BY: Record<NonNullable<StoredRecord["seen"]>["kind"], string> = {
  auto: "on auto",
  meter: "by meter",
  bias: "by its bias",
  frame: "from a frame",
  eye: "by eye",
};

const DONE: Record<NonNullable<StoredRecord["done"]>["what"], string> = {
  tick: "done: ",
  untick: "taken back: ",
  override: "gone on without a required check: ",
  swap: "",
  pin: "",
  note: "note: ",
  reading: "read: ",
  telemetry: "",
};

/** What came of a record, in a line. */
export function recordWords(record: StoredRecord, names: Record<string, string>): string {
  const glass = together(
    (record.glass ?? []).map((id) => names[id] ?? GONE),
    "",
  );
  const through = glass ? ` through ${glass}` : "";
  const by = record.rigId && names[record.rigId] ? `, ${names[record.rigId]}` : "";
  if (record.seen) {
    const { kind, ev100, foretold } = record.seen;
    const told = foretold
      ? `, foretold ${decimal(foretold.ev100, 1)} ±${decimal(foretold.spreadStops * foretold.scale, 1)}`
      : "";
    return `EV ${decimal(ev100, 1)}${through} ${SEEN_BY[kind]}${kind === "meter" || kind === "eye" ? "" : by}${told}`;
  }
  if (record.took) {
    const { kept, grade, why, errorStops } = record.took;
    return [
      `${kept ? "kept" : "binned"}${why ? `, ${whyBinned(why)}` : grade && kept ? `, ${grade}` : ""}${through}${by}`,
      errorStops !== undefined && `meant ${signed(errorStops)} stops`,
      costWords(record.took),
    ]
      .filter(Boolean)
      .join("; ");
  }
  if (record.step) return `${shutterText(record.step.shutterS)}, ${record.step.activity}: ${record.step.grade}${by}`;
  if (record.done) {
    const { what, anchor } = record.done;
    if (what === "swap") return `${glass || BARE} put on${by}`;
    if (what === "pin") return `forecast corrected by EV ${decimal(anchor?.ev100, 1)}: ${record.words ?? ""}`;
    return `${DONE[what]}${record.words || record.done.step || ""}`;
  }
  if (record.reset) return `${record.reset.words}${by}`;
  return record.words ?? "";
}

/** What a take cost: whether the filter that was planned stayed on, changes of filters, time. */
export function costWords({ firstRight, swaps, minutesLost }: NonNullable<StoredRecord["took"]>): string {
  return [
    firstRight !== undefined && (firstRight ? "first filter right" : "first filter wrong"),
    !!swaps && `${swaps} ${swaps === 1 ? "swap" : "swaps"}`,
    !!minutesLost && `${decimal(minutesLost, 0)} min lost`,
  ]
    .filter(Boolean)
    .join("; ");
}
