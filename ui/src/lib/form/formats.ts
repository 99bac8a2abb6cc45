import { localNumber, readNumber } from "../locale";
import { type Quantity, unitsNow } from "../units";

/** How a value of a form is written and read. What cannot be read is NOT_READ. */
export interface Format<T> {
  write: (value: T | undefined) => string;
  /** Undefined for nothing; NOT_READ for what says nothing. */
  read: (text: string) => T | undefined | typeof NOT_READ;
  /** What to write, for a text that could not be read. */
  how: string;
  isNumeric?: boolean;
}

/** Stands in a form where a text could not be read; never sent. */
export const NOT_READ = Symbol("not read");

export const text: Format<string> = {
  write: (value) => value ?? "",
  read: (typed) => (typed === "" ? undefined : typed),
  how: "",
};

/** A number; shown times scale, as a readout of 0.016 s is 16 ms. */
export const number = (scale = 1): Format<number> => ({
  write: (value) => (value === undefined ? "" : localNumber(String(Number((value * scale).toPrecision(12))))),
  read: (typed) =>
    typed.trim() === "" ? undefined : ((n) => (n === undefined ? NOT_READ : n / scale))(readNumber(typed)),
  how: "a number",
  isNumeric: true,
});

/** A speed, a length or a mass, in the unit that was chosen; stored in m/s, m or g. */
export const amount = (quantity: Quantity): Format<number> => ({
  write: (value) => {
    const { of } = unitsNow()[quantity];
    return value === undefined ? "" : localNumber(String(Number((value / of).toPrecision(of === 1 ? 12 : 4))));
  },
  read: (typed) => number(1 / unitsNow()[quantity].of).read(typed),
  how: "a number",
  isNumeric: true,
});

/** Words with blanks or commas between them: 25, 50, 59.94. */
export const words: Format<string[]> = {
  write: (value) => value?.join(", ") ?? "",
  read: (typed) => typed.split(/[\s,;]+/).filter(Boolean),
  how: "",
};

/** Some numbers, none of them twice; nothing where there is none. */
export const numbers: Format<number[] | undefined> = {
  write: (value) => value?.map((v) => localNumber(String(v))).join(", ") ?? "",
  read: (typed) => {
    const all = typed
      .split(/[\s;]+|,\s+/)
      .filter(Boolean)
      .map(readNumber);
    if (all.some((n) => n === undefined)) return NOT_READ;
    return all.length > 0 ? [...new Set(all as number[])] : undefined;
  },
  how: "numbers, as in 94, 120",
};

/** Two numbers, the least and the most: 20.02 to 20.05, or one for both. */
export const span: Format<number[]> = {
  write: (value) => [...new Set(value)].map((v) => localNumber(String(v))).join(" to "),
  read: (typed) => {
    if (typed.trim() === "") return undefined;
    const ends = typed.split(/\s+to\s+|\s*–\s*|\s*\.\.\.?\s*/).map(readNumber);
    const [least, most = least] = ends;
    return ends.length > 2 || least === undefined || most === undefined ? NOT_READ : [least, most];
  },
  how: "one number, or two as in 20.02 to 20.05",
};

interface Mark {
  mark: string;
  stops: number;
}

/** Marks on a ring and what was measured there: min = 1.2, 3 = 3.1. */
export const marks: Format<Mark[]> = {
  write: (value) => value?.map((m) => `${m.mark} = ${localNumber(String(m.stops))}`).join(", ") ?? "",
  read: (typed) => {
    if (typed.trim() === "") return undefined;
    const all = typed
      .split(/,(?!\d)|;/)
      .filter((part) => part.trim() !== "")
      .map((part) => {
        const [mark = "", stops = ""] = part.split("=");
        return { mark: mark.trim(), stops: readNumber(stops) };
      });
    return all.every((m): m is Mark => m.mark !== "" && m.stops !== undefined) ? all : NOT_READ;
  },
  how: "marks and stops, as in min = 1.2, 3 = 3.1, max = 6",
};

/** A value without what is empty in it: blank texts, undefined, objects of nothing. */
export function tidy<T>(value: T): T {
  if (Array.isArray(value) || typeof value !== "object" || value === null) return value;
  const kept = Object.entries(value)
    .map(([key, v]) => [key, tidy(v)] as const)
    .filter(([, v]) => v !== undefined && v !== "" && !isNothing(v));
  return Object.fromEntries(kept) as T;
}

const isNothing = (v: unknown): boolean =>
  typeof v === "object" && v !== null && !Array.isArray(v) && Object.keys(v).length === 0;
