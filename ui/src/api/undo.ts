/**
 * What was stored in this session, so that it can be taken back, whatever made it: every
 * request that makes, changes or deletes a thing passes here.
 */

import type { Schemas } from "./schemas";

/** A stored thing as it comes over the wire. */
interface Thing {
  id: string;
  version: number;
  name?: string;
  label?: string;
  [field: string]: unknown;
}

/** One thing that was made, changed or deleted. */
interface Step {
  /** The address of the thing. */
  address: string;
  kind: "made" | "changed" | "deleted";
  /** The fields before, of what was changed. */
  before?: Record<string, unknown>;
}

/** What somebody did: a step, or several that were one act. */
interface Change {
  /** In words: "Change Dawn walk". */
  what: string;
  steps: readonly [Step, ...Step[]];
  at: number;
}

const THINGS = /^\/api\/(cameras|filters|packs|rigs|shoots|shots|trials|light-readings|records)(?:\/([^/]+))?$/;
/** Whether an address is that of something stored, or of all of its kind. */
export const isThing = ({ pathname }: URL): boolean => THINGS.test(pathname);

const RESTORED = /^(\/api\/[^/]+\/[^/]+)\/restore$/;
/** What is shown of a thing, and not stored by who changes it. */
const SHOWN = [
  ["id", "version", "createdAt", "updatedAt", "deletedAt"],
  ["title", "reads", "counts", "takesStops", "learned", "open", "answer"],
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

const underway = new Set<Promise<unknown>>();

/** What stores something is waited for before anything is taken back. */
async function waitedFor<T>(storing: Promise<T>): Promise<T> {
  underway.add(storing);
  try {
    return await storing;
  } finally {
    underway.delete(storing);
  }
}

/** Passes a request on, and remembers how to take back what it does. */
export function remembered(request: Request, send: (request: Request) => Promise<Response>): Promise<Response> {
  const answered = noted(request, send);
  return request.method === "GET" ? answered : waitedFor(answered);
}

async function noted(request: Request, send: (request: Request) => Promise<Response>): Promise<Response> {
  const { pathname } = new URL(request.url);
  const { method } = request;
  const several = SEVERAL[pathname];
  const asked = several && request.clone();
  const response = await send(request);
  if (!response.ok) return response;
  if (several && asked) {
    const { what, steps } = several(await response.clone().json(), await asked.json());
    const [first, ...rest] = steps;
    if (first) push({ what, steps: [first, ...rest], at: Date.now() });
    return response;
  }
  const restored = RESTORED.exec(pathname)?.[1];
  if (restored) {
    await note(response, restored);
    set(changes.filter(({ steps }) => !steps.some((s) => s.kind === "deleted" && s.address === restored)));
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
  const did = (what: string, step: Step) => push({ what: `${what} ${name}`, steps: [step], at: Date.now() });
  if (method === "POST") did("Add", { address, kind: "made" });
  if (method === "DELETE") did("Delete", { address, kind: "deleted" });
  if (method === "PUT" && before) did("Change", { address, kind: "changed", before: fieldsOf(before) });
  return response;
}

const made = (plural: string, ids: readonly string[]): Step[] =>
  ids.map((id) => ({ address: `/api/${plural}/${id}`, kind: "made" }));

/** Requests that store several things as one act, and what they stored. */
// biome-ignore lint/suspicious/noExplicitAny: each reads the answer and the body of its own request.
const SEVERAL: Record<string, (answer: any, body: any) => { what: string; steps: Step[] }> = {
  "/api/kit/import": ({ addedFilters, addedCameras }: Schemas["Imported"]) => ({
    what: `Import ${addedFilters.length} filters`,
    steps: [...made("filters", addedFilters), ...made("cameras", addedCameras)],
  }),
  "/api/kit/buy": ({ filters }: Schemas["Bought"], { packId, version }: Schemas["BuyRequest"]) => {
    const address = `/api/packs/${packId}`;
    const pack = known.get(address) ?? { id: packId, version };
    known.set(address, { ...pack, version: version + 1 });
    return {
      what: `Buy ${nameOf(pack)}`,
      steps: [{ address, kind: "deleted" }, ...made("filters", filters)],
    };
  },
};

const nameOf = ({ name, label, words }: Thing): string => String(name || label || words || "an entry");

const fieldsOf = (thing: Thing): Record<string, unknown> =>
  Object.fromEntries(Object.entries(thing).filter(([field]) => !SHOWN.includes(field)));

let together: Step[] | undefined;

/** Has all that is stored while something runs be one act, which is taken back as one. */
export const asOneAct = <T>(what: string, run: () => Promise<T>): Promise<T> => waitedFor(act(what, run));

async function act<T>(what: string, run: () => Promise<T>): Promise<T> {
  const steps: Step[] = [];
  together = steps;
  try {
    return await run();
  } finally {
    together = undefined;
    const [first, ...rest] = steps;
    if (first) push({ what, steps: [first, ...rest], at: Date.now() });
  }
}

function push(change: Change): void {
  if (together) {
    together.push(...change.steps);
    return;
  }
  const last = changes.at(-1);
  set(last && isMoreOf(last, change) ? [...changes.slice(0, -1), { ...last, at: change.at }] : [...changes, change]);
}

/** Whether a change goes on with the one before it, as the next letter of a name does. */
function isMoreOf(last: Change, { steps: [step], at }: Change): boolean {
  const [before] = last.steps;
  return (
    last.steps.length === 1 &&
    before.kind === "changed" &&
    step.kind === "changed" &&
    before.address === step.address &&
    at - last.at < TOGETHER_MS
  );
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

const unfinished = new Set<() => Promise<void>>();

/** Has a change that waits to be stored stored before one is taken back, which it is then. Returns how to end that. */
export function beforeUndo(store: () => Promise<void>): () => void {
  unfinished.add(store);
  return () => void unfinished.delete(store);
}

/** Takes the last change back; returns it and the addresses of what it was, or nothing where there is none. */
export async function undoLast(
  send: (request: Request) => Promise<Response>,
): Promise<{ what: string; addresses: string[] } | undefined> {
  await Promise.all([...unfinished].map((store) => store()));
  await Promise.allSettled(underway); // who has left a place had it stored then
  const change = changes.at(-1);
  if (!change) return undefined;
  isUndoing = true;
  try {
    for (const step of change.steps.toReversed()) {
      const response = await send(takingBack(step));
      if (response.ok) continue;
      const { detail } = (await response.json().catch(() => ({}))) as { detail?: string };
      throw new Error(detail ?? "It was changed elsewhere.");
    }
    return { what: change.what, addresses: change.steps.map((s) => s.address) };
  } finally {
    set(changes.filter((c) => c !== change)); // what cannot be taken back is not tried for ever
    isUndoing = false;
  }
}

function takingBack({ address, kind, before }: Step): Request {
  const version = known.get(address)?.version ?? 1;
  const url = new URL(address, window.location.href);
  url.searchParams.set("version", String(version));
  if (kind === "made") return new Request(url, { method: "DELETE" });
  if (kind === "deleted") return new Request(`${url.origin}${address}/restore?version=${version}`, { method: "POST" });
  const headers = { "Content-Type": "application/json" };
  return new Request(url, { method: "PUT", body: JSON.stringify(before), headers });
}
