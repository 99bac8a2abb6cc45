import { loadAhead } from "../lib/loadAhead";
import { heard } from "./ask";
import { answerHere, isWarm } from "./here/calc";
import { isLost } from "./reach";
import { askOn, type Computed, connect, hangUp, isConnected } from "./talk";

/**
 * Computations: the server's core answers them, on the server or in the page, with one result.
 * Where the server is far, as over a weak network, the program is loaded into the page, and who
 * has been faster is asked first; where it is near, a connection to it is kept open.
 */

const CALC = "/api/calc/";

/** So long a computation waits for a server that says nothing. */
const PATIENCE_MS = 3_000;
/** A server that never took less than this is far: the page would answer sooner. */
const FAR_MS = 40;
/** So many answers tell how far it is. */
const ENOUGH = 4;
/** So many times as long as usual are waited before the other is asked, too. */
const LATE = 3;
/** How much the last answer counts in what is usual. */
const WEIGHT = 0.25;

/** How long answers usually take, in milliseconds. */
const usual = { there: 0, here: 0 };

type Side = keyof typeof usual;

export async function compute(name: string, body: unknown, signal: AbortSignal): Promise<Computed> {
  const text = JSON.stringify(body);
  const ask: Record<Side, () => Promise<Computed>> = {
    there: () => timed("there", () => onServer(name, text, signal)),
    here: () => timed("here", () => answerHere(name, text)),
  };
  if (isLost()) return ask.here();
  if (isWarm()) return usual.here < usual.there ? hedged(ask, "here", "there") : hedged(ask, "there", "here");
  try {
    return await ask.there();
  } catch (cause) {
    if (signal.aborted) throw cause;
    return ask.here();
  }
}

/** One side's answer, or the other's where the first takes its time or gives none. */
async function hedged(ask: Record<Side, () => Promise<Computed>>, first: Side, second: Side): Promise<Computed> {
  const early = ask[first]();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<"late">((resolve) => {
    timer = setTimeout(() => resolve("late"), LATE * usual[first]);
  });
  const answer = await Promise.race([early.catch(() => "late" as const), late]);
  clearTimeout(timer);
  return answer === "late" ? Promise.any([early, ask[second]()]) : answer;
}

let soonest = Number.POSITIVE_INFINITY;
let answers = 0;

// The browser's own clock of what was sent and came back: the page's waits while the page is busy, as at its start.
new PerformanceObserver((list) => {
  for (const sent of list.getEntries() as PerformanceResourceTiming[]) {
    if (!sent.name.includes(CALC)) continue;
    answers += 1;
    soonest = Math.min(soonest, sent.responseStart - sent.requestStart);
  }
}).observe({ type: "resource", buffered: true });

/** A busy moment makes no server far; what its soonest answer took is the way to it. */
const isFar = (): boolean => soonest > FAR_MS;

async function timed(side: Side, ask: () => Promise<Computed>): Promise<Computed> {
  const start = performance.now();
  const answer = await ask();
  const took = performance.now() - start;
  usual[side] = usual[side] === 0 ? took : usual[side] + WEIGHT * (took - usual[side]);
  return answer;
}

async function onServer(name: string, body: string, signal: AbortSignal): Promise<Computed> {
  try {
    const answer = await heard((waited) => sent(name, body, waited), signal, PATIENCE_MS);
    if (answers >= ENOUGH) isFar() ? warm() : connect();
    return answer;
  } catch (cause) {
    if (!signal.aborted) hangUp(); // it may be open, and nobody there
    throw cause;
  }
}

/** Asks on the open connection, or by a request of its own where that is none, or just ended. */
async function sent(name: string, body: string, signal: AbortSignal): Promise<Computed> {
  if (isConnected()) {
    try {
      return await askOn(name, body, signal);
    } catch (cause) {
      if (signal.aborted) throw cause;
    }
  }
  const headers = { "Content-Type": "application/json" };
  const response = await fetch(`${CALC}${name}`, { method: "POST", body, headers, signal });
  return { status: response.status, text: await response.text() };
}

let isLoading = false;

/** Loads the program in a quiet moment; that it could not be loaded is no fault of the page. */
function warm(): void {
  if (isLoading) return;
  isLoading = true;
  loadAhead(() => answerHere("label", '{"label":"ND8"}'));
}
