import { once } from "./once";
import { noteReach } from "./reach";
import { remembered } from "./undo";

/** So long the server is waited for. */
const LONG_MS = 30_000;

/** Asks the server, and notes whether it answered. */
export const ask = (request: Request): Promise<Response> =>
  remembered(request, (r) => once(r, (keyed) => heard(keyed, { signal: keyed.signal }, LONG_MS)));

/** Sends a request, and notes whether it was answered in time. */
export async function heard(
  request: Request | string,
  init: RequestInit & { signal: AbortSignal },
  patienceMs: number,
): Promise<Response> {
  try {
    const signal = AbortSignal.any([init.signal, AbortSignal.timeout(patienceMs)]);
    const response = await fetch(request, { ...init, signal });
    noteReach(true);
    return response;
  } catch (cause) {
    if (!init.signal.aborted) noteReach(false);
    throw cause;
  }
}
