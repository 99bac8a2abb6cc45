const PATIENCE_MS = 5_000;
/** Where the browser does not tell of quiet moments, a page has been drawn after so long. */
const DRAWN_MS = 1_000;

/** Runs something in a quiet moment of the page. The answer takes it back. */
export function whenQuiet(run: () => void): () => void {
  if (typeof requestIdleCallback === "function") {
    const moment = requestIdleCallback(run, { timeout: PATIENCE_MS });
    return () => cancelIdleCallback(moment);
  }
  const timer = setTimeout(run, DRAWN_MS);
  return () => clearTimeout(timer);
}
