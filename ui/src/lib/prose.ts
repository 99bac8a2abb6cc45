import { DECIMAL_MARK } from "./locale";
import { type Quantity, significant, type Units, unitsNow } from "./units";

/**
 * What the core says, in the decimal mark and the units of this device. It writes points, m/s, m
 * and g, as files do.
 */

/** The fields of answers that hold sentences and figures to read, never what is sent back. */
const SAID = new Set(
  [
    ["words", "text", "because", "why", "reason", "reasons", "says", "advice", "caution", "cautions", "next"],
    ["remedies", "effects", "helps", "does", "result", "numbers", "gives", "costs", "hurts", "pays", "reads"],
    ["brighter", "darker", "carry", "hopeless", "settle", "lookAt", "allowed", "detail", "shutterText", "isoText"],
    ["fastestText", "slowestText"],
  ].flat(),
);

const QUANTITY_OF: Record<string, Quantity> = { "m/s": "speed", m: "length", g: "mass" };
/** An amount, or two with a dash or "to" between, before one of the units. */
const AMOUNT = /(\d+(?:\.\d+)?)(?:(–| to )(\d+(?:\.\d+)?))? (m\/s|m|g)(?![\w/²°])/g;
/** A decimal point, but not that of a density on a ring, which is a name: ND 0.9. */
const POINT = /(?<!\bND ?\d*)(?<=\d)\.(?=\d)/g;

const digitsIn = (text: string): number => text.replace(/^0*\.?0*|\./g, "").length;

export function said(text: string, units: Units = unitsNow(), mark: string = DECIMAL_MARK): string {
  const converted = text.replace(AMOUNT, (all, low: string, between: string, high: string, name: string) => {
    const quantity = QUANTITY_OF[name];
    const unit = quantity && units[quantity];
    if (!unit || unit.of === 1) return all;
    const write = (amount: string) => significant(Number(amount) / unit.of, Math.max(2, digitsIn(amount)));
    return `${write(low)}${high ? between + write(high) : ""} ${unit.name}`;
  });
  return mark === "." ? converted : converted.replace(POINT, mark);
}

/** An answer with all that it says so written. Nothing is done where the core writes alike. */
export function localised<T>(answer: T): T {
  const isAlike = DECIMAL_MARK === "." && Object.values(unitsNow()).every((u) => u.of === 1);
  return isAlike ? answer : walk(answer, false);
}

function walk<T>(value: T, isSaid: boolean): T {
  if (typeof value === "string") return (isSaid ? said(value) : value) as T;
  if (Array.isArray(value)) return value.map((v) => walk(v, isSaid)) as T;
  // A picture is no answer in words.
  if (typeof value !== "object" || value === null || Object.getPrototypeOf(value) !== Object.prototype) return value;
  return Object.fromEntries(Object.entries(value).map(([key, v]) => [key, walk(v, SAID.has(key))])) as T;
}

/** Words as a sentence of their own. */
export const sentence = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
