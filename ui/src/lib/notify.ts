import { useSyncExternalStore } from "react";

/**
 * Notes that the device shows by itself, also over other applications: asked for once, by a
 * press, and never more than what was asked for.
 */
export type Permission = NotificationPermission | "none";

const listeners = new Set<() => void>();

const permission = (): Permission => ("Notification" in window ? Notification.permission : "none");

export async function askToNotify(): Promise<void> {
  await Notification.requestPermission();
  for (const heard of listeners) heard();
}

const subscribe = (heard: () => void) => {
  listeners.add(heard);
  return () => listeners.delete(heard);
};

export const useNotifyPermission = (): Permission => useSyncExternalStore(subscribe, permission);

/** Shows a note, by the service worker where there is one: telephones show no other. */
export async function notify(title: string, body: string, tag: string): Promise<void> {
  if (permission() !== "granted") return;
  const worker = await navigator.serviceWorker?.getRegistration();
  const note = { body, tag, icon: "/icon-192.png" };
  if (worker) await worker.showNotification(title, note);
  else new Notification(title, note);
}
