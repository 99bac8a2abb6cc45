import { useEffect } from "react";

/** Keeps the screen on for as long as the card is on it, where the device lets it. */
export function useAwake(): void {
  useEffect(() => {
    if (!("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let isOver = false;
    // The lock is lost whenever the page is hidden, and refused on a low battery.
    const hold = async () => {
      if (document.visibilityState !== "visible") return;
      const held = await navigator.wakeLock.request("screen").catch(() => undefined);
      if (isOver) void held?.release();
      else lock = held;
    };
    void hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      isOver = true;
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, []);
}
