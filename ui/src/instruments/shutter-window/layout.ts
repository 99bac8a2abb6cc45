import { scaleLog } from "d3-scale";
import type { Schemas } from "../../api/schemas";
import type { State } from "../../lib/StateMark";

type Answer = Schemas["WindowAnswer"];

export interface Stretch {
  x: number;
  width: number;
  state: State;
}

/** One demand, drawn as a row of stretches. */
export interface Row {
  key: string;
  name: string;
  stretches: Stretch[];
}

export interface Step {
  seconds: number;
  text: string;
  x: number;
  isLabelled: boolean;
}

export interface WindowLayout {
  rows: Row[];
  overlap: Stretch[];
  steps: Step[];
  chosen: { x: number; text: string };
  wish: number | null;
  /** Where the exposure takes the shutter, the ends of its range; none where it stays. */
  taken: number[];
}

const NAMES: Record<string, string> = {
  look: "shutter target",
  stabiliser: "stabiliser limit",
  lamps: "flicker",
  wobble: "wobble",
  readable: "pan speed",
};

/** How many stacks have a row of their own. */
const EXPOSURES = 3;

const LABEL_WIDTH = 56; // CSS pixels that a label such as 1/2000 needs

/** Places the window on a scale of that width: long times to the left, as on the stop rail. */
export function layoutWindow(
  answer: Answer,
  chosenS: number,
  taken: readonly number[],
  left: number,
  width: number,
  glassOf: (ids: readonly string[]) => string,
): WindowLayout {
  const x = scaleLog([answer.toS, answer.fromS], [left, width]).clamp(true);
  const stretch = (b: { fromS: number; toS: number; verdict: State }): Stretch => ({
    x: x(b.toS),
    width: Math.max(1, x(b.fromS) - x(b.toS)),
    state: b.verdict,
  });
  const at = (kind: Schemas["WindowMark"]["kind"]): number | null => {
    const mark = answer.marks.find((m) => m.kind === kind);
    return mark ? x(mark.shutterS) : null;
  };
  const rows = new Map<string, Row>();
  let exposures = 0;
  for (const band of answer.bands) {
    const key = band.kind + (band.filters?.join() ?? (band.stops === undefined ? "" : "bare"));
    let row = rows.get(key);
    if (!row) {
      if (band.kind === "exposure" && ++exposures > EXPOSURES) continue;
      row = {
        key,
        name: band.kind === "exposure" ? glassOf(band.filters ?? []) : (NAMES[band.kind] ?? ""),
        stretches: [],
      };
      rows.set(key, row);
    }
    row.stretches.push(stretch(band));
  }
  const chosen = answer.marks.find((m) => Math.abs(m.shutterS / chosenS - 1) < 1e-6);
  return {
    rows: [...rows.values()],
    overlap: answer.overlap.map(stretch),
    steps: stepsOf(answer, x),
    chosen: { x: x(chosenS), text: chosen?.text ?? answer.verdict.text },
    wish: at("wish"),
    taken: taken.filter((t) => Math.abs(t / chosenS - 1) > 1e-3).map(x),
  };
}

/** The camera's steps, the longest first; labels where there is room for them. */
function stepsOf(answer: Answer, x: (t: number) => number): Step[] {
  const steps = answer.marks.filter((m) => m.kind === "step").sort((a, b) => b.shutterS - a.shutterS);
  let free = Number.NEGATIVE_INFINITY;
  const end = x(answer.fromS);
  return steps.map((m) => {
    const at = x(m.shutterS);
    // The label of the last step ends at it.
    const isLabelled = (at > end - LABEL_WIDTH / 2 ? at - LABEL_WIDTH / 2 : at) >= free;
    if (isLabelled) free = at + LABEL_WIDTH;
    return { seconds: m.shutterS, text: m.text, x: at, isLabelled };
  });
}

/** The step nearest to a place on the scale. */
export function stepAt(steps: readonly Step[], x: number): Step | undefined {
  return steps.reduce<Step | undefined>(
    (best, step) => (best === undefined || Math.abs(step.x - x) < Math.abs(best.x - x) ? step : best),
    undefined,
  );
}
