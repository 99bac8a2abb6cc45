import { scaleLinear } from "d3-scale";
import type { Schemas } from "../../api/schemas";

/** A piece of glass as the rail draws it. */
export interface Block {
  id: string;
  name: string;
  stops: number;
}

/** What the rail shows, all in stops; brighter is always to the right. */
export interface RailInput {
  answer: Schemas["ShotAnswer"];
  /** Glass in the order the light meets it: the outermost first, mounted glass last. */
  blocks: readonly Block[];
}

export interface Span {
  x: number;
  width: number;
}

export interface RailLayout {
  settingX: number;
  band: Span;
  light: Span;
  lightX: number;
  landing: Span;
  landingX: number;
  blocks: (Block & Span)[];
  /** ISO that pushes back up, or a faster shutter that pushes further down. */
  push: (Span & { kind: "iso" | "shutter"; stops: number }) | null;
  rungs: { x: number; text: string; count: number; isLabelled: boolean }[];
}

const ROOM = 0.8; // stops beside the outermost mark, for its label
const LEAST_SPAN = 5; // stops, so that a small gap is not blown up
const LABEL_WIDTH = 54; // CSS pixels that a label such as 1/2000 needs

/** Places everything on a rail of that width in CSS pixels. */
export function layoutRail({ answer, blocks }: RailInput, width: number): RailLayout {
  const { solve, chosen, offsetStops: offset, tolerance: band } = answer;
  const high = answer.reading.ev100;
  const low = answer.low?.ev100 ?? high;
  const spread = answer.reading.spreadStops;
  const aim = solve.evSet + offset;
  const landing = high - chosen.stops;
  const landingLow = low - chosen.stops;
  const from = Math.min(aim - band.dark, landingLow) - ROOM;
  const to = Math.max(high + spread, aim + band.bright, from + LEAST_SPAN) + ROOM;
  const x = scaleLinear([from, to], [0, width]);
  const span = (a: number, b: number): Span => ({ x: x(Math.min(a, b)), width: Math.abs(x(b) - x(a)) });

  let edge = high;
  const placed = blocks.map((block) => {
    const start = edge - block.stops;
    const at = span(start, edge);
    edge = start;
    return { ...block, ...at };
  });
  return {
    settingX: x(solve.evSet),
    band: span(aim - band.dark, aim + band.bright),
    light: span(low - spread, high + spread),
    lightX: x(high),
    landing: span(landingLow, landing),
    landingX: x(landing),
    blocks: placed,
    push: pushOf(answer, landing, span),
    rungs: rungsOf(solve.ladder, x, x(1) - x(0)),
  };
}

function pushOf(
  answer: Schemas["ShotAnswer"],
  landing: number,
  span: (a: number, b: number) => Span,
): RailLayout["push"] {
  const { chosen } = answer;
  const moved = chosen.leftStops - chosen.errorStops;
  if (Math.abs(moved) < 0.05) return null;
  return { ...span(landing, landing + moved), kind: moved > 0 ? "iso" : "shutter", stops: Math.abs(moved) };
}

function rungsOf(ladder: Schemas["Rung"][], x: (ev: number) => number, stopWidth: number): RailLayout["rungs"] {
  const every = Math.max(1, Math.ceil(LABEL_WIDTH / stopWidth));
  return ladder.map((rung, count) => ({ x: x(rung.ev100), text: rung.text, count, isLabelled: count % every === 0 }));
}
