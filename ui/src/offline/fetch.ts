import { answerHere } from "./calc";
import { isLost, noteReach } from "./reach";

/** So long a computation waits for a server that says nothing, and everything else. */
const PATIENCE_MS = 3_000;
const LONG_MS = 30_000;

const CALC = "/api/calc/";

/**
 * Asks the server; a computation that it does not answer is done in the page. Every
 * other request fails as it would without.
 */
export async function fetchOrCompute(request: Request): Promise<Response> {
  const { pathname } = new URL(request.url);
  if (!pathname.startsWith(CALC)) return asked(request, LONG_MS);
  const body = await request.clone().text();
  if (!isLost()) {
    try {
      return await asked(request, PATIENCE_MS);
    } catch (cause) {
      if (request.signal.aborted) throw cause;
    }
  }
  return answerHere(pathname.slice(CALC.length), body);
}

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
