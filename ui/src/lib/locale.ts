/** How this device writes numbers. */

const isComma = new Intl.NumberFormat().formatToParts(1.5).some((p) => p.type === "decimal" && p.value === ",");

export const DECIMAL_MARK = isComma ? "," : ".";

/** A plain number with the decimal mark of this device, and a true minus. */
export const localNumber = (plain: string): string => plain.replace(".", DECIMAL_MARK).replace(/^-/, "−");

/** A number with so many decimals; "" for none. */
export const decimal = (value: number | undefined, digits: number): string =>
  value === undefined ? "" : localNumber(value.toFixed(digits).replace(/^-(0\.?0*)$/, "$1"));

/**
 * What is typed in a field without the unit, by which its label ends: "2.5 m" in "Distance, m", "3 stops" in "Measured
 * stops", "EV 13" in "Brightest, EV".
 */
export function withoutUnit(typed: string, label: string): string {
  const [unit = ""] = /[^\s\d]+$/.exec(label.toLowerCase()) ?? []; // never of digits, which are the number's
  const bare = typed.trim();
  if (!unit) return bare;
  if (bare.toLowerCase().endsWith(unit)) return bare.slice(0, -unit.length);
  return bare.toLowerCase().startsWith(unit) ? bare.slice(unit.length) : bare;
}

/** Digits in groups of three, by the mark that is not the decimal one here: 12,800. */
const THOUSANDS = isComma ? /^[1-9]\d{0,2}(?:\.\d{3})+$/ : /^[1-9]\d{0,2}(?:,\d{3})+$/;

/**
 * Reads a number as it is typed here or anywhere: a decimal comma is as good as a point, but where
 * it can only set thousands apart.
 */
export function readNumber(text: string): number | undefined {
  const typed = text.trim();
  const plain = THOUSANDS.test(typed) ? typed.replace(/\D/g, "") : typed.replace(",", ".").replace("−", "-");
  const value = Number(plain);
  return plain !== "" && Number.isFinite(value) ? value : undefined;
}
