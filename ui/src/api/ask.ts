import { once } from "./once";
import { noteReach } from "./reach";
import { remembered } from "./undo";

/** So long the server is waited for. */
const LONG_MS = 30_000;

/** Asks the server, and notes whether it answered. */
export const ask = (request: Request): Promise<Response> =>
  remembered(request, (r) => once(r, (keyed) => heard((signal) => fetch(keyed, { signal }), keyed.signal, LONG_MS)));

/** Asks by a function, and notes whether the server answered in time. */
export async function heard<T>(
  send: (signal: AbortSignal) => Promise<T>,
  signal: AbortSignal,
  patienceMs: number,
): Promise<T> {
  try {
    const answer = await send(AbortSignal.any([signal, AbortSignal.timeout(patienceMs)]));
    noteReach(true);
    return answer;
  } catch (cause) {
    if (!signal.aborted) noteReach(false);
    throw cause;
  }
}
