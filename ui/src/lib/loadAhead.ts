import { whenQuiet } from "./whenQuiet";

/** Whether the reader asked the browser to spare data. Not every browser tells. */
const sparesData = (): boolean => (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;

/**
 * Loads in a quiet moment what may be wanted next, unless data is spared: then, and where it could not be
 * loaded, it comes when it is wanted. What is returned takes it back.
 */
export function loadAhead(load: () => Promise<unknown>): () => void {
  return sparesData() ? () => {} : whenQuiet(() => void load().catch(() => {}));
}
