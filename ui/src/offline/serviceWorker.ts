import { registerSW } from "virtual:pwa-register";
import { toaster } from "../shell/toaster";

/**
 * Lets the page open without its server. A new version waits until the page is
 * reloaded: nothing changes under the hands.
 */
export function keepOffline(): void {
  const update = registerSW({
    immediate: true,
    onNeedRefresh: () =>
      toaster.create({
        title: "A new version is here",
        duration: 60_000,
        closable: true,
        action: { label: "Reload", onClick: () => void update(true) },
      }),
  });
}
