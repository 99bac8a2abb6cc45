import { useSyncExternalStore } from "react";

/** Whether the server answered when it was last asked. */
let isThere = true;
let lostAt = 0;
const listeners = new Set<() => void>();

export function noteReach(there: boolean): void {
  if (!there) lostAt = Date.now();
  if (there === isThere) return;
  isThere = there;
  for (const heard of listeners) heard();
}

/** Soon after the server was lost, computations do not wait for it again. */
export const isLost = (): boolean => !isThere && Date.now() - lostAt < RETRY_MS;

const RETRY_MS = 10_000;

const subscribe = (heard: () => void) => {
  listeners.add(heard);
  return () => listeners.delete(heard);
};

export const useReach = (): boolean => useSyncExternalStore(subscribe, () => isThere);
