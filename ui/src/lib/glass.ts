import type { Schemas } from "../api/client";

type Bench = Schemas["Bench"];
type Filter = Schemas["ShownFilter"];

/** The filters of a bench by id. */
export function byId(bench: Bench): Map<string, Filter> {
  return new Map(bench.filters.map((filter) => [filter.id, filter]));
}

/** What glass is called: "ND64 + CPL", a variable filter with its ring's setting. */
export function glassName(
  ids: readonly string[],
  filters: Map<string, Filter>,
  settings?: Record<string, number>,
): string {
  if (ids.length === 0) return "No glass";
  return ids
    .map((id) => {
      const title = filters.get(id)?.title ?? "unknown glass";
      const setting = settings?.[id];
      return setting === undefined ? title : `${title} at ${setting.toFixed(1)}`;
    })
    .join(" + ");
}

/** What a filter takes, in stops; a variable one as its ring is turned. */
export function stopsOf(filter: Filter, settings?: Record<string, number>): number {
  return settings?.[filter.id] ?? filter.counts?.measuredStops ?? filter.counts?.stops ?? 0;
}

/**
 * The grey that glass of so many stops really has before white: the share of
 * light it passes, encoded for the screen (sRGB, IEC 61966-2-1).
 */
export function greyOf(stops: number): { fill: string; ink: string } {
  const light = 2 ** -Math.max(0, stops);
  const encoded = light <= 0.0031308 ? 12.92 * light : 1.055 * light ** (1 / 2.4) - 0.055;
  const level = Math.round(255 * encoded);
  return { fill: `rgb(${level} ${level} ${level})`, ink: light > 0.18 ? "#000000" : "#ffffff" };
}
