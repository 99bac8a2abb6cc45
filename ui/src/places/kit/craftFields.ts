import { ACTIVITIES } from "../../lib/activities";
import type { FieldSpec } from "../../lib/form/Fields";
import { number } from "../../lib/form/formats";

/** How a camera usually moves as it is held. */
export const CRAFT: readonly FieldSpec[] = [
  { path: "craft.activity", label: "It usually moves as", w: "190px", options: { "": "not known", ...ACTIVITIES } },
  { path: "craft.shakeDegS", label: "Its shake, °/s", helper: "as measured", w: "160px", format: number() },
];

/** A pilot's rates, axis by axis. */
export const RATES: readonly FieldSpec[] = ratesOf("rates");

/** Other rates, laid over them. */
export const COMPARED: readonly FieldSpec[] = ratesOf("compared");

function ratesOf(set: "rates" | "compared"): FieldSpec[] {
  return (["pan", "pitch", "roll"] as const).flatMap((axis) => {
    const at = `craft.${set}.${axis}`;
    const name = { pan: "Pan", pitch: "Pitch", roll: "Roll" }[axis];
    return [
      { path: `${at}.centreDegS`, label: `${name} centre, °/s`, w: "150px", format: number() },
      { path: `${at}.maxDegS`, label: `${name} maximum, °/s`, w: "165px", format: number() },
      { path: `${at}.expo`, label: `${name} expo, 0 to 1`, w: "140px", format: number() },
    ];
  });
}
