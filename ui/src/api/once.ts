import { uuid } from "../lib/uuid";

/**
 * Creating is done once, however often it is sent: what is sent again after its answer was
 * lost carries the key of the first time, and the server stores one thing.
 */
const keys = new Map<string, string>();

/** The addresses at which things are made. */
const MADE = /^\/api\/(keep|shoots|shots|cameras|filters|packs|rigs|trials|light-readings)$/;

/** Sends a request by a function, with a key where it makes something. */
export async function once(request: Request, send: (request: Request) => Promise<Response>): Promise<Response> {
  const { pathname } = new URL(request.url);
  if (request.method !== "POST" || !MADE.test(pathname)) return send(request);
  const body = await request.clone().text();
  const what = `${pathname} ${body}`;
  const key = keys.get(what) ?? uuid();
  keys.set(what, key);
  const keyed = new Request(request, { headers: { ...Object.fromEntries(request.headers), "Idempotency-Key": key } });
  const answer = await send(keyed);
  keys.delete(what); // it was answered: the next of the same is another
  return answer;
}
