/** Why a take is binned: the words of the log, and what a screen says for them. */
export const WHY_BINNED = {
  dark: "dark",
  bright: "bright",
  ghost: "ghosting",
  noise: "noise",
  smear: "excess blur",
  strobing: "strobing",
  lamps: "flicker",
  focus: "focus",
} as const;
export type WhyBinned = keyof typeof WHY_BINNED;

/** A reason in a screen's words; any other as it was written. */
export const whyBinned = (why: string): string => WHY_BINNED[why as WhyBinned] ?? why;
