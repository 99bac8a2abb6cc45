import { createAsyncStoragePersister } from "@tanstack/query-async-storage-persister";
import type { QueryClient } from "@tanstack/react-query";
import { persistQueryClientRestore, persistQueryClientSave } from "@tanstack/react-query-persist-client";
import { database, inTime } from "./database";

/** What the places show when the server is gone; computed answers are computed again. */
const KEPT = new Set([
  "status",
  "presets",
  "shoots",
  "shots",
  "cameras",
  "filters",
  "bench",
  "day",
  "card",
  "practice",
]);

const DAY_MS = 24 * 3_600_000;

/** How long the page keeps answers in memory: a browser's timers count no further than 24 days. */
export const KEEP_MS = 20 * DAY_MS;

/** For how many days this device keeps what it was shown, as the owner said when the server last answered. */
const DAYS = "pinhole.keepDays";
const USUAL_DAYS = 7;

/** Notes what the owner says of it. */
export function keepFor(days: number): void {
  try {
    localStorage.setItem(DAYS, String(days));
  } catch {
    // a device whose store refuses keeps nothing anyway
  }
}

const keepMs = (): number => (Number(localStorage.getItem(DAYS)) || USUAL_DAYS) * DAY_MS;

/** To be raised when what the server says changes its shape: what is kept is then let go. */
const SHAPE = "2";

/** So long the page waits for what is kept: it does not stay blank for it. */
const PATIENCE_MS = 1_000;

const persister = createAsyncStoragePersister({
  storage: {
    getItem: async (key) => (await (await database()).get("answers", key)) ?? null,
    setItem: async (key, value) => {
      await (await database()).put("answers", value, key);
    },
    removeItem: async (key) => (await database()).delete("answers", key),
  },
});

const isKept = (key: readonly unknown[]): boolean => KEPT.has(String(key[0]));

/**
 * Brings back what the server said before, and from then on keeps what it says on this
 * device. Only what is kept causes writing: computed answers come with every key press.
 */
export async function keepAnswers(queryClient: QueryClient): Promise<void> {
  const kept = { queryClient, persister, maxAge: keepMs(), buster: SHAPE };
  await inTime(
    persistQueryClientRestore(kept).catch(() => {}),
    PATIENCE_MS,
  );
  queryClient.getQueryCache().subscribe((event) => {
    if (event.type !== "updated" || event.action.type !== "success" || !isKept(event.query.queryKey)) return;
    void persistQueryClientSave({
      ...kept,
      dehydrateOptions: {
        // What was answered once stays, though the server did not answer when it was asked again.
        shouldDehydrateQuery: (query) => query.state.data !== undefined && isKept(query.queryKey),
      },
    });
  });
}
