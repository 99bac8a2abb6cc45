import { scaleLinear } from "d3-scale";

/** Where things stand in the strip of one day. Times are milliseconds. */
export interface StripScales {
  x: (at: number) => number;
  at: (x: number) => number;
  y: (ev: number) => number;
}

export const LEFT = 56;
export const RIGHT = 24;
export const CURVE_TOP = 22;
export const CURVE_HEIGHT = 100;
export const SKY_TOP = CURVE_TOP + CURVE_HEIGHT + 8;
export const SKY_HEIGHT = 44;
export const LANES_TOP = SKY_TOP + SKY_HEIGHT + 30;
export const LANE_HEIGHT = 58;
export const BAR_HEIGHT = 44;

/** How high the strip of so many cameras is drawn. */
export const stripHeight = (lanes: number): number => LANES_TOP + lanes * LANE_HEIGHT + 8;

export const DARKEST = 0;
export const BRIGHTEST = 17;

export const MINUTE = 60_000;
export const HOUR = 60 * MINUTE;

export function scales(from: number, to: number, width: number): StripScales {
  const time = scaleLinear([from, to], [LEFT, width - RIGHT]).clamp(true);
  const light = scaleLinear([DARKEST, BRIGHTEST], [CURVE_TOP + CURVE_HEIGHT, CURVE_TOP]).clamp(true);
  return { x: (at) => time(at), at: (x) => time.invert(x), y: (ev) => light(ev) };
}

/** A time on the grid of so many minutes. */
export const onGrid = (at: number, minutes: number): number => Math.round(at / (minutes * MINUTE)) * minutes * MINUTE;
