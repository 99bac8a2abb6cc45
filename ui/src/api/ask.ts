import { answerHere } from "./here/calc";
import { once } from "./once";
import { isLost, noteReach } from "./reach";
import { remembered } from "./undo";

/** So long a computation waits for a server that says nothing, and everything else. */
const PATIENCE_MS = 3_000;
const LONG_MS = 30_000;

/** Asks the server, and notes whether it answered. */
export const ask = (request: Request): Promise<Response> =>
  remembered(request, (r) => once(r, (keyed) => asked(keyed, LONG_MS)));

/**
 * Asks the server for a computation; what it does not answer is computed in the page.
 * The body is given apart: reading it back from the request takes longer than asking.
 */
export const orHere =
  (name: string, body: unknown) =>
  async (request: Request): Promise<Response> => {
    if (!isLost()) {
      try {
        return await asked(request, PATIENCE_MS);
      } catch (cause) {
        if (request.signal.aborted) throw cause;
      }
    }
    return answerHere(name, JSON.stringify(body));
  };

async function asked(request: Request, patienceMs: number): Promise<Response> {
  try {
    const signal = AbortSignal.any([request.signal, AbortSignal.timeout(patienceMs)]);
    const response = await fetch(request, { signal });
    noteReach(true);
    return response;
  } catch (cause) {
    if (!request.signal.aborted) noteReach(false);
    throw cause;
  }
}
