import type { QueryClient } from "@tanstack/react-query";
import { deleteDB } from "idb";
import { closeDatabase, inTime } from "./database";

/** Drafts of shots that have not reached the server, by their keys. */
const DRAFT = "pinhole.draft.";

/** So long is waited for a browser that does not say that it has let go; loading the page anew makes it. */
const PATIENCE_MS = 2_000;

/** How many drafts of shots are on this device alone. */
export const draftsHere = (): number => Object.keys(localStorage).filter((key) => key.startsWith(DRAFT)).length;

/**
 * Lets go of everything that this device keeps: what the server said, what waits to be sent,
 * drafts, the page itself and the worker that opens it without its server.
 */
export async function forgetEverything(queries: QueryClient): Promise<void> {
  queries.clear();
  localStorage.clear();
  sessionStorage.clear();
  const lettingGo = [
    closeDatabase().then(() => deleteDB("pinhole")),
    forgetCaches(),
    navigator.serviceWorker?.getRegistrations().then((all) => Promise.all(all.map((r) => r.unregister()))),
  ];
  await inTime(Promise.allSettled(lettingGo), PATIENCE_MS);
  // What is on the screen may have written meanwhile.
  localStorage.clear();
  sessionStorage.clear();
}

async function forgetCaches(): Promise<void> {
  if (!("caches" in window)) return;
  await Promise.all((await caches.keys()).map((name) => caches.delete(name)));
}
