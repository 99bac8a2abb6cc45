/** Units and signs only; every number comes from the core. */

/** A signed error in stops: "+0.3", "−1.2", "0.0". */
export function signed(stops: number): string {
  const text = Math.abs(stops).toFixed(1);
  if (text === "0.0") return text;
  return (stops > 0 ? "+" : "−") + text;
}

/** An amount of glass: "4.9 stops". */
export function stops(value: number): string {
  const text = value.toFixed(1);
  return `${text} ${text === "1.0" ? "stop" : "stops"}`;
}

/** "ISO 171" */
export const iso = (value: number): string => `ISO ${Math.round(value)}`;

/** The day and clock time of an instant, in this device's zone. */
export const moment = (instant: string): string =>
  new Date(instant).toLocaleString([], { dateStyle: "medium", timeStyle: "short", hourCycle: "h23" });

/** "3.4 MB" */
export const bytes = (count: number): string =>
  count < 1e6 ? `${Math.ceil(count / 1e3)} kB` : `${(count / 1e6).toFixed(1)} MB`;

/** "180°" */
export const angle = (deg: number | null | undefined): string => (deg == null ? "" : `${Math.round(deg)}°`);

/** The clock time of an instant, in this device's zone. */
export const clock = (instant: string | Date): string =>
  new Date(instant).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hourCycle: "h23" });

/** A planned instant as it was written, in its own zone: "Sat 20 Sep, 07:20". */
export function planned(instant: string | undefined): string {
  if (!instant) return "";
  const [date = "", rest = ""] = instant.split("T");
  const day = new Date(`${date}T00:00:00Z`);
  if (Number.isNaN(day.getTime())) return instant;
  const name = day.toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short", timeZone: "UTC" });
  return `${name}, ${rest.slice(0, 5)}`;
}
