/** What a part of a line, or the form that changes it, is called on a screen. */
export const partName = (kind: string): string => (kind === "lamps" ? "lights" : kind);
