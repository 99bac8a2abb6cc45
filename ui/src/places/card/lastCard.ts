const LAST = "pinhole.lastCard";

/** Keeps on this device whose card was open last. */
export const noteCard = (shootId: string): void => localStorage.setItem(LAST, shootId);

/** The shoot whose card was open last, or else the newest. */
export const lastCard = <Shoot extends { id: string }>(shoots: readonly Shoot[]): Shoot | undefined =>
  shoots.find(({ id }) => id === localStorage.getItem(LAST)) ?? shoots.at(-1);
