import { useSyncExternalStore } from "react";

/** What a browser offers to install the page as an application; not in its type library. */
interface InstallOffer extends Event {
  prompt: () => Promise<unknown>;
}

let offer: InstallOffer | undefined;
const listeners = new Set<() => void>();

function note(next: InstallOffer | undefined): void {
  offer = next;
  for (const heard of listeners) heard();
}

/** Keeps the browser's offer until somebody asks for it. */
export function keepInstallOffer(): void {
  window.addEventListener("beforeinstallprompt", (event) => {
    event.preventDefault();
    note(event as InstallOffer);
  });
  window.addEventListener("appinstalled", () => note(undefined));
}

const subscribe = (heard: () => void) => {
  listeners.add(heard);
  return () => listeners.delete(heard);
};

/** Installs the page on this device; undefined where the browser does not offer it. */
export function useInstall(): (() => void) | undefined {
  const offered = useSyncExternalStore(subscribe, () => offer);
  return offered && (() => void offered.prompt().then(() => note(undefined)));
}
