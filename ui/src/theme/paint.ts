const COLOURS = [
  ...(["page", "panel", "edge", "ink", "muted", "accent", "accentSoft", "lamp", "lampInk", "lampSoft"] as const),
  ...(["holds", "tight", "breaks", "unknown", "holdsSoft", "tightSoft", "breaksSoft", "unknownSoft"] as const),
];
type Colour = (typeof COLOURS)[number];

/** The theme's variable of a colour: its names are written with hyphens there. */
const variable = (colour: string): string =>
  `var(--chakra-colors-${colour.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)})`;

/**
 * What drawings are painted with: variables of the theme, so that light and dark follow without
 * drawing anew, and nothing is styled while it is drawn.
 */
export const paint = Object.fromEntries(COLOURS.map((c) => [c, variable(c)])) as Record<Colour, string>;
