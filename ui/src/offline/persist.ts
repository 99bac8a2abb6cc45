import { createAsyncStoragePersister } from "@tanstack/query-async-storage-persister";
import type { PersistQueryClientOptions } from "@tanstack/react-query-persist-client";
import { database } from "./database";

/** What the places show when the server is gone; computed answers are computed again. */
const KEPT = new Set(["status", "shoots", "shots", "cameras", "filters", "bench", "day", "card"]);

/** Twenty days: a browser's timers count no further than 24. */
export const KEEP_MS = 20 * 24 * 3_600_000;

/** To be raised when what the server says changes its shape: what is kept is then let go. */
const SHAPE = "1";

/** Keeps what the server said on this device. */
export const persistence: Omit<PersistQueryClientOptions, "queryClient"> = {
  persister: createAsyncStoragePersister({
    storage: {
      getItem: async (key) => (await (await database()).get("answers", key)) ?? null,
      setItem: async (key, value) => {
        await (await database()).put("answers", value, key);
      },
      removeItem: async (key) => (await database()).delete("answers", key),
    },
  }),
  maxAge: KEEP_MS,
  buster: SHAPE,
  dehydrateOptions: {
    // What was answered once stays, though the server did not answer when it was asked again.
    shouldDehydrateQuery: (query) => query.state.data !== undefined && KEPT.has(String(query.queryKey[0])),
  },
};
