import { useEffect, useRef } from "react";
import type { Schemas } from "../../api/schemas";
import { buzz } from "../../lib/buzz";
import { notify } from "../../lib/notify";
import { clockIn } from "../../lib/zone";
import { toaster } from "../../shell/toaster";

/** So long before the latest minute of a swap it is said. */
const LEAD_MS = 10 * 60_000;

/** Says each swap once, shortly before its latest minute: on the screen, to the hand, as a notification. */
export function useSwapAlarm(cameras: readonly Schemas["CardCamera"][], now: number, zone: string): void {
  const said = useRef(new Set<string>());
  useEffect(() => {
    for (const { cameraId, name, swap } of cameras) {
      const left = Date.parse(swap?.due ?? "") - now;
      if (!swap || !(left > 0 && left <= LEAD_MS)) continue;
      const swapKey = `${cameraId} ${swap.due}`;
      if (said.current.has(swapKey)) continue;
      said.current.add(swapKey);
      const title = `Swap by ${clockIn(swap.due, zone)}: ${swap.to}`;
      const body = `${name}: in place of ${swap.from}`;
      buzz("due");
      toaster.create({ title, description: body, duration: 60_000, closable: true });
      void notify(title, body, swapKey);
    }
  }, [cameras, now, zone]);
}
