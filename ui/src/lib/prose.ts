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
    ["fastestText", "slowestText", "lines", "against"],
  ].flat(),
);

/** What holds words of the person's own, which stay as they were typed. */
const TYPED = new Set(["unread"]);

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

/**
 * An answer with all that it says so written: the one that is given, which nobody else has yet.
 * Nothing is done where the core writes alike.
 */
export function localised<T>(answer: T): T {
  const isAlike = DECIMAL_MARK === "." && Object.values(unitsNow()).every((u) => u.of === 1);
  return isAlike ? answer : (written(answer, false) as T);
}

function written(value: unknown, isSaid: boolean): unknown {
  if (typeof value === "string") return isSaid ? said(value) : value;
  if (Array.isArray(value)) {
    for (const [i, v] of value.entries()) value[i] = written(v, isSaid);
  } else if (isPlain(value)) {
    for (const key of Object.keys(value)) if (!TYPED.has(key)) value[key] = written(value[key], SAID.has(key));
  }
  return value;
}

/** A picture is no answer in words. */
const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && Object.getPrototypeOf(value) === Object.prototype;

/** Words as a sentence of their own. */
export const sentence = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
