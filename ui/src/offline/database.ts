import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Schemas } from "../api/schemas";

/** Something done in the field that has not reached the server yet. */
export interface Waiting {
  id: string;
  shootId: string;
  entry: Schemas["StoredFieldEntryFields"];
  /** Why the server would not take it; it is kept and shown. */
  refused?: string;
}

interface Kept extends DBSchema {
  /** What the server said last, for when it is gone. */
  answers: { key: string; value: string };
  /** In the order in which it was done. */
  waiting: { key: number; value: Waiting; indexes: { id: string } };
  /** A comparison of filters that is under way: what is compared, and each frame by its step. */
  comparison: { key: string; value: unknown };
}

let opened: Promise<IDBPDatabase<Kept>> | undefined;

/**
 * Waits for the browser's store, but only so long: one that is thrown away while it is opened, as that of a
 * device that was shut out, may never answer.
 */
export const inTime = <T>(storing: Promise<T>, patienceMs: number): Promise<T | undefined> =>
  Promise.race([storing, new Promise<undefined>((resolve) => setTimeout(resolve, patienceMs))]);

/** Closes what is kept on this device, so that it can be deleted. */
export async function closeDatabase(): Promise<void> {
  (await opened?.catch(() => undefined))?.close();
  opened = undefined;
}

/** What is kept on this device. */
export function database(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>("pinhole", 2, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore("answers");
        db.createObjectStore("waiting", { autoIncrement: true }).createIndex("id", "id", { unique: true });
      }
      db.createObjectStore("comparison");
    },
    // A newer version of the page waits for this one to let go.
    blocking: () => void closeDatabase(),
  });
  return opened;
}
