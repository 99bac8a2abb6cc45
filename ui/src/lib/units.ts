import { useSyncExternalStore } from "react";
import type { Schemas } from "../api/schemas";
import { localNumber } from "./locale";

/**
 * The units that speeds, lengths and masses are shown and typed in. Everything is stored and
 * computed in m/s, m and g; what a unit is of these comes from the core, with the presets.
 */
export type Quantity = "speed" | "length" | "mass";
type Unit = Schemas["Unit"];
export type Units = Record<Quantity, Unit>;

const COMPUTED: Units = { speed: { name: "m/s", of: 1 }, length: { name: "m", of: 1 }, mass: { name: "g", of: 1 } };
/** Where people measure in miles an hour, feet and ounces. */
const IMPERIAL = ["US", "LR", "MM"];
const STORED = "pinhole-units";

const listeners = new Set<() => void>();
let units = stored() ?? COMPUTED;

function stored(): Units | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(STORED) ?? "") as Partial<Units>;
    return kept.speed && kept.length && kept.mass ? (kept as Units) : undefined;
  } catch {
    return undefined;
  }
}

export function chooseUnits(next: Units): void {
  units = next;
  localStorage.setItem(STORED, JSON.stringify(next));
  for (const heard of listeners) heard();
}

/** Takes the units of this device's region, where nobody has chosen any. */
export function offerUnits({ speeds, lengths, masses }: Schemas["Offered"]): void {
  if (stored()) return;
  const region = new Intl.Locale(navigator.language).maximize().region ?? "";
  const isImperial = IMPERIAL.includes(region);
  const named = (all: readonly Unit[], name: string) => all.find((u) => u.name === name);
  chooseUnits({
    speed: (isImperial && named(speeds, "mph")) || COMPUTED.speed,
    length: (isImperial && named(lengths, "ft")) || COMPUTED.length,
    mass: (isImperial && named(masses, "oz")) || COMPUTED.mass,
  });
}

const subscribe = (heard: () => void) => {
  listeners.add(heard);
  return () => listeners.delete(heard);
};

export const useUnits = (): Units => useSyncExternalStore(subscribe, () => units);
export const unitsNow = (): Units => units;

/** An amount with its unit as chosen: "1.4 m/s", "3.1 mph". What stays on the screen gives the units it was told. */
export function amountOf(quantity: Quantity, value: number, digits = 2, chosen: Units = units): string {
  const unit = chosen[quantity];
  return `${localNumber(significant(value / unit.of, digits))} ${unit.name}`;
}

/** A number with so many significant digits, and no exponent. */
export const significant = (value: number, digits: number): string => String(Number(value.toPrecision(digits)));
