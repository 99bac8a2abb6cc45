/** So long a page may be quiet only because it waits for what it draws. */
const DRAWN_MS = 1_000;
const PATIENCE_MS = 5_000;

/** Runs something in a quiet moment after the page was drawn. What is returned takes it back. */
export function whenQuiet(run: () => void): () => void {
  let moment: number | undefined;
  const timer = setTimeout(() => {
    // Not every browser tells of quiet moments.
    if (typeof requestIdleCallback === "function") moment = requestIdleCallback(run, { timeout: PATIENCE_MS });
    else run();
  }, DRAWN_MS);
  return () => {
    clearTimeout(timer);
    if (moment !== undefined) cancelIdleCallback(moment);
  };
}
