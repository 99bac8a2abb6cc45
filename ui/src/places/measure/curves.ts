import { useSyncExternalStore } from "react";
import * as z from "zod/mini";
import type { Part } from "../../api/here/measure";

/** A profile whose transfer was found from a bracket, by the name that its owner gave it. */
const curveShape = z.object({ name: z.string(), curve: z.object({ stops: z.array(z.nullable(z.number())) }) });
type FoundCurve = z.infer<typeof curveShape>;

/** On this device: a curve belongs to the profile of a camera that is at hand. */
const KEY = "pinhole.curves";
const listeners = new Set<() => void>();
let last: { text: string | null; all: readonly FoundCurve[] } = { text: null, all: [] };

function snapshot(): readonly FoundCurve[] {
  const text = localStorage.getItem(KEY);
  if (text === last.text) return last.all;
  let all: readonly FoundCurve[] = [];
  try {
    all = z.array(curveShape).parse(JSON.parse(text ?? "[]"));
  } catch {
    // What cannot be read is found anew.
  }
  last = { text, all };
  return all;
}

/** The profiles whose curves are known on this device. */
export const useCurves = (): readonly FoundCurve[] =>
  useSyncExternalStore((heard) => {
    listeners.add(heard);
    return () => listeners.delete(heard);
  }, snapshot);

/** Keeps a curve; one of the same name gives way. */
export function keepCurve(found: FoundCurve): void {
  localStorage.setItem(KEY, JSON.stringify([...snapshot().filter((c) => c.name !== found.name), found]));
  for (const heard of listeners) heard();
}

export function forgetCurve(name: string): void {
  localStorage.setItem(KEY, JSON.stringify(snapshot().filter((c) => c.name !== name)));
  for (const heard of listeners) heard();
}

/** A curve as a measurement is given it; nothing for pictures as they usually are. */
export function curvePart(name: string): Part[] {
  const found = snapshot().find((c) => c.name === name);
  return found ? [{ option: "curve", file: new File([JSON.stringify(found.curve)], `${name}.json`) }] : [];
}
