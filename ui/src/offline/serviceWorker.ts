import { registerSW } from "virtual:pwa-register";
import { useSyncExternalStore } from "react";

/** Whether this device opens the page without its server; not known until it is asked. */
export type Kept = "unknown" | "kept" | "not kept";

let kept: Kept = "unknown";
let newVersion: (() => void) | undefined;
const listeners = new Set<() => void>();

function note(now: Kept): void {
  kept = now;
  for (const heard of listeners) heard();
}

/**
 * Lets the page open without its server, where the browser allows it. A new version
 * waits: it is offered, with what takes it.
 */
export function keepOffline(offer: (take: () => void) => void): void {
  if (!("serviceWorker" in navigator)) {
    note("not kept");
    return;
  }
  const update = registerSW({
    immediate: true,
    onNeedRefresh: () => {
      newVersion = () => void update(true);
      for (const heard of listeners) heard();
      offer(newVersion);
    },
    onRegisterError: () => note("not kept"),
  });
  void navigator.serviceWorker.ready.then(() => note("kept"));
}

const subscribe = (heard: () => void) => {
  listeners.add(heard);
  return () => listeners.delete(heard);
};

export const useKeptOffline = (): Kept => useSyncExternalStore(subscribe, () => kept);

/** Takes the version that waits; undefined while there is none. */
export const useNewVersion = (): (() => void) | undefined => useSyncExternalStore(subscribe, () => newVersion);
