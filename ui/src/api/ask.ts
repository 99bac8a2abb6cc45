import { noteChange } from "./askAhead";
import { once } from "./once";
import { noteReach } from "./reach";
import { remembered } from "./undo";

/** So long the server is waited for. */
const LONG_MS = 30_000;

/** What is asked here keeps nothing, whatever its method. */
const KEEPS_NOTHING = /^\/api\/(calc|render|sim)\//;

/** Asks the server, and notes whether it answered, and that it may have changed what is stored. */
export async function ask(request: Request): Promise<Response> {
  try {
    return await remembered(request, (r) =>
      once(r, (keyed) => heard((signal) => fetch(keyed, { signal }), keyed.signal, LONG_MS)),
    );
  } finally {
    if (request.method !== "GET" && !KEEPS_NOTHING.test(new URL(request.url).pathname)) noteChange();
  }
}

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
