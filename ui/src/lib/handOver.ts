/**
 * A file that came in from anywhere, on its way to the part of the product that reads it. It
 * waits until that part is on the screen, and is taken once.
 */
import { useEffect, useRef, useSyncExternalStore } from "react";

/** What reads a file: a kit's table, the archive, a day's place, its light, the line, a measurement. */
export type Reader = "kit" | "archive" | "track" | "still" | "line" | "frame" | "take" | "telemetry" | "gyro";

let waiting: { reader: Reader; file: File } | undefined;
const listeners = new Set<() => void>();

function set(next: typeof waiting): void {
  waiting = next;
  for (const heard of listeners) heard();
}

export const handOver = (reader: Reader, file: File): void => set({ reader, file });

const subscribe = (heard: () => void) => {
  listeners.add(heard);
  return () => listeners.delete(heard);
};

/** Whether a file waits for a reader, which then brings itself on the screen. */
export const useWaiting = (reader: Reader | undefined): boolean =>
  useSyncExternalStore(subscribe, () => reader !== undefined && waiting?.reader === reader);

/** Takes the file that waits for a reader, which is undefined for as long as it cannot. */
export function useHandedOver(reader: Reader | undefined, take: (file: File) => void): void {
  const isWaiting = useWaiting(reader);
  const taker = useRef(take);
  taker.current = take;
  useEffect(() => {
    if (!isWaiting || !waiting) return;
    const { file } = waiting;
    set(undefined);
    taker.current(file);
  }, [isWaiting]);
}
