/** What a computation answered. */
export interface Computed {
  status: number;
  text: string;
}

/**
 * One open connection to the server, for computations: what is asked and answered on it takes a third of
 * the time that a request by itself does. "7 shot {…}" asks, "7 200 {…}" answers, "7" alone no longer waits.
 */
let connection: WebSocket | undefined;
let asked = 0;
const waiting = new Map<string, { resolve: (answer: Computed) => void; reject: (cause: unknown) => void }>();

/** So often it is tried in vain, as behind a proxy that lets none through. */
const MOST_TRIES = 3;
let tries = 0;

/** Opens the connection, unless there is one. */
export function connect(): void {
  if (connection || tries === MOST_TRIES) return;
  tries += 1;
  connection = new WebSocket(new URL("/api/calc", window.location.href.replace(/^http/, "ws")));
  connection.onopen = () => {
    tries = 0;
  };
  connection.onmessage = ({ data }: MessageEvent<string>) => {
    const [head, number, status] = /^(\d+) (\d+) /.exec(data) ?? ["", "", ""];
    waiting.get(number)?.resolve({ status: Number(status), text: data.slice(head.length) });
    waiting.delete(number);
  };
  connection.onclose = hangUp;
}

export const isConnected = (): boolean => connection?.readyState === WebSocket.OPEN;

/** Ends the connection, and everything that waits on it. */
export function hangUp(): void {
  const ended = connection;
  connection = undefined;
  if (ended) ended.onclose = null; // the next may be open by then
  ended?.close();
  for (const { reject } of waiting.values()) reject(new TypeError("the connection ended"));
  waiting.clear();
}

// A telephone that is put away loses it without a word.
document.addEventListener("visibilitychange", () => document.hidden && hangUp());

/** Asks on the open connection; fails where it ends, or when nobody waits any more. */
export function askOn(name: string, body: string, signal: AbortSignal): Promise<Computed> {
  asked += 1;
  const number = `${asked}`;
  return new Promise((resolve, reject) => {
    signal.throwIfAborted();
    waiting.set(number, { resolve, reject });
    signal.addEventListener("abort", () => {
      if (!waiting.delete(number)) return;
      connection?.send(number);
      reject(signal.reason);
    });
    connection?.send(`${number} ${name} ${body}`);
  });
}
