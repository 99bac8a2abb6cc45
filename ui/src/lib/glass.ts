import type { Schemas } from "../api/schemas";
import { decimal } from "./locale";

type Bench = Schemas["Bench"];
type Filter = Schemas["ShownFilter"];

/** A piece of glass as it is named and counted. */
export type Piece = Pick<Filter, "id" | "title"> & Partial<Pick<Filter, "takesStops">>;

/** Glass that is gone, by the names that an old answer kept of it. */
export const named = (glass: Record<string, string> = {}): [string, Piece][] =>
  Object.entries(glass).map(([id, title]) => [id, { id, title }]);

/** The id that the core gives a filter which is only being tried. */
export const NEW_GLASS = "new filter";

/**
 * The filters of a bench by id, a filter of so many stops that is being tried, and
 * the names of glass that is gone.
 */
export function byId(bench: Bench, triedStops?: number, gone?: Record<string, string>): Map<string, Piece> {
  const pieces = new Map<string, Piece>([...named(gone), ...bench.filters.map((f): [string, Piece] => [f.id, f])]);
  if (triedStops)
    pieces.set(NEW_GLASS, {
      id: NEW_GLASS,
      title: `new ${triedStops}-stop filter`,
      takesStops: triedStops,
    });
  return pieces;
}

/** The glass of a shot, said to be its owner's choice where it is. */
export const asPut = (glass: string, isByHand: boolean | undefined): string => (isByHand ? `${glass}, by hand` : glass);

/** What is said of glass whose name is not known any more. */
export const GONE = "a filter that is gone";

/** How a lens without glass is called, within a sentence. */
export const BARE = "no filter";

/** What filters that are on together are called: "ND64 + CPL". */
export const together = (titles: readonly string[], bare = "No filter"): string => titles.join(" + ") || bare;

/** What glass is called, a variable filter with its ring's setting. */
export const glassName = (
  ids: readonly string[],
  filters: Map<string, Piece>,
  settings?: Record<string, number>,
): string =>
  together(
    ids.map((id) => {
      const title = filters.get(id)?.title ?? GONE;
      const setting = settings?.[id];
      return setting === undefined ? title : `${title} at ${decimal(setting, 1)}`;
    }),
  );

/** What a filter takes, in stops; a variable one as its ring is turned. */
export function stopsOf(filter: Piece, settings?: Record<string, number>): number {
  return settings?.[filter.id] ?? filter.takesStops ?? 0;
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
