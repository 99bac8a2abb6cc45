/** Units and signs only; every number comes from the core. */

import { decimal } from "./locale";

/** A signed error in stops: "+0.3", "−1.2", "0.0". */
export function signed(stops: number, digits = 1): string {
  const text = decimal(stops, digits);
  return /[1-9]/.test(text) && stops > 0 ? `+${text}` : text;
}

/** An amount of glass: "4.9 stops". */
export function stops(value: number): string {
  const text = decimal(value, 1);
  return `${text} ${value.toFixed(1) === "1.0" ? "stop" : "stops"}`;
}

/** "ISO 171" */
export const iso = (value: number): string => `ISO ${Math.round(value)}`;

/** The day and clock time of an instant, in this device's zone. */
export const moment = (instant: string): string =>
  new Date(instant).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });

/** "3.4 MB" */
export const bytes = (count: number): string =>
  count < 1e6 ? `${Math.ceil(count / 1e3)} kB` : `${decimal(count / 1e6, 1)} MB`;

/** "180°" */
export const angle = (deg: number | null | undefined): string => (deg == null ? "" : `${Math.round(deg)}°`);

/** The clock time of an instant, in this device's zone. */
export const clock = (instant: string | Date): string =>
  new Date(instant).toLocaleTimeString([], { timeStyle: "short" });
