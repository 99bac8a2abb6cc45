/**
 * An instant as a clock in some time zone shows it, in the form of this device's language. Zones
 * are IANA names; "" or Local is this device's.
 */

const SHAPES = {
  clock: [undefined, { timeStyle: "short" }],
  day: [undefined, { weekday: "short", day: "numeric", month: "short" }],
  date: ["sv-SE", { year: "numeric", month: "2-digit", day: "2-digit" }],
  offset: ["en-GB", { timeZoneName: "longOffset" }],
} as const satisfies Record<string, [string | undefined, Intl.DateTimeFormatOptions]>;

// Making a formatter takes a hundred times as long as using it.
const made = new Map<string, Intl.DateTimeFormat>();

// While a bar is dragged, the same instants are written over and over.
const written = new Map<string, string>();
const MOST_WRITTEN = 4_000;

function format(shape: keyof typeof SHAPES, at: number | string | Date, zone: string): string {
  const key = `${shape} ${zone}`;
  const instant = `${key} ${Number(new Date(at))}`;
  const known = written.get(instant);
  if (known !== undefined) return known;
  if (written.size >= MOST_WRITTEN) written.clear();
  const text = formatterOf(key, shape, zone).format(new Date(at));
  written.set(instant, text);
  return text;
}

function formatterOf(key: string, shape: keyof typeof SHAPES, zone: string): Intl.DateTimeFormat {
  let formatter = made.get(key);
  if (!formatter) {
    const [locale, options] = SHAPES[shape];
    formatter = new Intl.DateTimeFormat(locale, {
      ...options,
      ...(zone && zone !== "Local" ? { timeZone: zone } : {}),
    });
    made.set(key, formatter);
  }
  return formatter;
}

/** "07:20" */
export const clockIn = (at: number | string | Date, zone: string): string => format("clock", at, zone);

/** A zone as people know it: "UTC−1" for Etc/GMT+1, whose sign is turned round, else its city. */
export function zoneWords(zone: string): string {
  if (zone === "" || zone === "Local") return "this device's time";
  const etc = /^Etc\/(?:GMT|UTC)(?:([+-])(\d+))?$/.exec(zone);
  if (etc) return etc[2] ? `UTC${etc[1] === "+" ? "−" : "+"}${etc[2]}` : "UTC";
  return zone.replace(/^.*\//, "").replaceAll("_", " ");
}

/** "Sat, 20 Sept" */
export const dayIn = (at: number | string | Date, zone: string): string => format("day", at, zone);

/** A planned instant as it was written, in its own zone: "Sat 20 Sept, 07:20". */
export function planned(instant: string | undefined): string {
  const written = instant?.match(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/)?.[0];
  return written ? `${dayIn(`${written}Z`, "UTC")}, ${clockIn(`${written}Z`, "UTC")}` : "";
}

/** "2031-09-20", as a date field takes it. */
export const dateIn = (at: number | string | Date, zone: string): string => format("date", at, zone);

/** How far a zone's clock is ahead of UTC at an instant, in minutes. */
function offsetMinutes(at: number, zone: string): number {
  const text = format("offset", at, zone).match(/GMT(?:([+-])(\d{2}):(\d{2}))?/);
  if (!text?.[1]) return 0;
  return (text[1] === "-" ? -1 : 1) * (Number(text[2]) * 60 + Number(text[3]));
}

/** The instant with the zone's offset, as the server takes it: 2031-09-20T07:20:00-01:00. */
export function isoIn(at: number, zone: string): string {
  const offset = offsetMinutes(at, zone);
  const local = new Date(at + offset * 60_000).toISOString().slice(0, 19);
  const sign = offset < 0 ? "-" : "+";
  const two = (n: number) => String(Math.floor(n)).padStart(2, "0");
  return `${local}${sign}${two(Math.abs(offset) / 60)}:${two(Math.abs(offset) % 60)}`;
}

/** The instant at which a clock in the zone shows a date and a time; NaN for what is neither. */
export function instantIn(date: string, time: string, zone: string): number {
  const asUtc = Date.parse(`${date}T${time}:00Z`);
  if (Number.isNaN(asUtc)) return Number.NaN;
  // The offset is that of the instant itself, which lies an offset away.
  const first = asUtc - offsetMinutes(asUtc, zone) * 60_000;
  return asUtc - offsetMinutes(first, zone) * 60_000;
}
