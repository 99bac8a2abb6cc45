import type { Schemas } from "../../api/client";
import { signed } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";

type StoredRecord = Schemas["StoredRecord"];

const SEEN_BY: Record<NonNullable<StoredRecord["seen"]>["kind"], string> = {
  auto: "on auto",
  meter: "by meter",
  bias: "by its bias",
  frame: "from a frame",
  eye: "by eye",
};

/** What came of a record, in a line. */
export function recordWords(record: StoredRecord, names: Record<string, string>): string {
  const glass = (record.glass ?? []).map((id) => names[id] ?? "a filter that is gone").join(" + ");
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
    const { kept, grade, why, errorStops, firstRight, swaps, minutesLost } = record.took;
    return [
      `${kept ? "kept" : "binned"}${why ? `, ${why}` : grade && kept ? `, ${grade}` : ""}${through}${by}`,
      errorStops !== undefined && `meant ${signed(errorStops)} stops`,
      firstRight !== undefined && (firstRight ? "first filter right" : "first filter wrong"),
      !!swaps && `${swaps} swaps`,
      !!minutesLost && `${minutesLost} min lost`,
    ]
      .filter(Boolean)
      .join("; ");
  }
  if (record.step) return `${shutterText(record.step.shutterS)}, ${record.step.activity}: ${record.step.grade}${by}`;
  if (record.reset) return `${record.reset.words}${by}`;
  return record.words ?? "";
}
