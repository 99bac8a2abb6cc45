/**
 * What was stored in this session, so that it can be taken back, whatever made it: every
 * request that makes, changes or deletes a thing passes here.
 */

/** A stored thing as it comes over the wire. */
interface Thing {
  id: string;
  version: number;
  name?: string;
  label?: string;
  [field: string]: unknown;
}

interface Change {
  /** In words: "change of Dawn walk". */
  what: string;
  /** The address of the thing. */
  address: string;
  kind: "made" | "changed" | "deleted";
  /** The fields before, of what was changed. */
  before?: Record<string, unknown>;
  at: number;
}

const THINGS = /^\/api\/(cameras|filters|packs|rigs|shoots|shots|trials|light-readings)(?:\/([^/]+))?$/;
const RESTORED = /^(\/api\/[^/]+\/[^/]+)\/restore$/;
/** What is shown of a thing, and not stored by who changes it. */
const SHOWN = [
  ["id", "version", "createdAt", "updatedAt", "deletedAt"],
  ["title", "reads", "counts", "takesStops", "open", "answer"],
].flat();
/** Changes of one thing that follow on each other so closely are one change. */
const TOGETHER_MS = 3_000;
const MOST = 100;

const known = new Map<string, Thing>();
let changes: readonly Change[] = [];
const listeners = new Set<() => void>();
let isUndoing = false;

function set(next: readonly Change[]): void {
  changes = next.slice(-MOST);
  for (const listener of listeners) listener();
}

/** Passes a request on, and remembers how to take back what it does. */
export async function remembered(request: Request, send: (request: Request) => Promise<Response>): Promise<Response> {
  const { pathname } = new URL(request.url);
  const { method } = request;
  const response = await send(request);
  if (!response.ok) return response;
  const restored = RESTORED.exec(pathname)?.[1];
  if (restored) {
    await note(response, restored);
    set(changes.filter((c) => !(c.kind === "deleted" && c.address === restored)));
    return response;
  }
  const [, plural, id] = THINGS.exec(pathname) ?? (pathname === "/api/keep" ? ["", "shots"] : []);
  if (!plural) return response;
  if (method === "GET") {
    await note(response, id ? pathname : `/api/${plural}`);
    return response;
  }
  const before = id ? known.get(pathname) : undefined;
  const thing = await note(response, id ? pathname : `/api/${plural}`);
  if (isUndoing || !thing) return response;
  const address = `/api/${plural}/${thing.id}`;
  const name = nameOf(before ?? thing);
  if (method === "POST") push({ what: `Add ${name}`, address, kind: "made", at: Date.now() });
  if (method === "DELETE") push({ what: `Delete ${name}`, address, kind: "deleted", at: Date.now() });
  if (method === "PUT" && before) {
    push({ what: `Change ${name}`, address, kind: "changed", before: fieldsOf(before), at: Date.now() });
  }
  return response;
}

const nameOf = ({ name, label, words }: Thing): string => String(name || label || words || "an entry");

const fieldsOf = (thing: Thing): Record<string, unknown> =>
  Object.fromEntries(Object.entries(thing).filter(([field]) => !SHOWN.includes(field)));

function push(change: Change): void {
  const last = changes.at(-1);
  const isMore =
    last?.kind === "changed" &&
    change.kind === "changed" &&
    last.address === change.address &&
    change.at - last.at < TOGETHER_MS;
  set(isMore ? [...changes.slice(0, -1), { ...last, at: change.at }] : [...changes, change]);
}

/** Keeps the things of an answer as they are stored now; returns the one of an answer that has one. */
async function note(response: Response, address: string): Promise<Thing | undefined> {
  const body = (await response
    .clone()
    .json()
    .catch(() => undefined)) as Thing | { items?: Thing[] } | undefined;
  if (!body) return undefined;
  if ("items" in body && Array.isArray(body.items)) {
    for (const thing of body.items) known.set(`${address}/${thing.id}`, thing);
    return undefined;
  }
  const thing = body as Thing;
  if (typeof thing.id !== "string" || typeof thing.version !== "number") return undefined;
  known.set(address.endsWith(thing.id) ? address : `${address}/${thing.id}`, thing);
  return thing;
}

/** The change that would be taken back next, in words; "" for none. */
export const nextUndo = (): string => changes.at(-1)?.what ?? "";

export function onUndoChange(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Takes the last change back; returns it and the address of what it was, or nothing where there is none. */
export async function undoLast(
  send: (request: Request) => Promise<Response>,
): Promise<{ what: string; address: string } | undefined> {
  const change = changes.at(-1);
  if (!change) return undefined;
  const { address, kind, before, what } = change;
  const version = known.get(address)?.version ?? 1;
  const url = new URL(address, window.location.href);
  url.searchParams.set("version", String(version));
  isUndoing = true;
  try {
    const request = () => {
      if (kind === "made") return new Request(url, { method: "DELETE" });
      if (kind === "deleted")
        return new Request(`${url.origin}${address}/restore?version=${version}`, { method: "POST" });
      const headers = { "Content-Type": "application/json" };
      return new Request(url, { method: "PUT", body: JSON.stringify(before), headers });
    };
    const response = await send(request());
    set(changes.filter((c) => c !== change)); // what cannot be taken back is not tried for ever
    if (!response.ok) {
      const { detail } = (await response.json().catch(() => ({}))) as { detail?: string };
      throw new Error(detail ?? "It was changed elsewhere.");
    }
    return { what, address };
  } finally {
    isUndoing = false;
  }
}
