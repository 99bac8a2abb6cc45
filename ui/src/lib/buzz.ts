/** Lets the telephone be felt, where it can: a short buzz for what was done, a long one for what is due. */
const PATTERNS = { done: [25], due: [300, 150, 300] } as const;

export const buzz = (what: keyof typeof PATTERNS): void => {
  if ("vibrate" in navigator) navigator.vibrate([...PATTERNS[what]]);
};
