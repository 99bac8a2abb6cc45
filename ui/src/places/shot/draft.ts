import mergePatch from "json-merge-patch";
import type { Schemas } from "../../api/schemas";
import { NEW_GLASS } from "../../lib/glass";

/** A shot as it stands under the hands: what is typed, before it is stored. */
export type Draft = Schemas["StoredShotFields"];
export type Shot = Schemas["StoredShot"];
export type Bench = Schemas["Bench"];
export type Answer = Schemas["ShotAnswer"];
export type Scene = Schemas["ShotScene"];
export type LightKind = Schemas["ShotLight"]["kind"];

/** The fields of a stored shot that are edited. */
export function draftOf(shot: Shot): Draft {
  const { shootId, cameraId, rigId, name, startsAt, day, look, light, choices, scene, placed } = shot;
  return {
    shootId,
    cameraId,
    name,
    look,
    light,
    choices,
    scene: scene ?? {},
    ...(rigId && { rigId }),
    ...(day && { day }),
    ...(startsAt && { startsAt }),
    ...(placed && { placed }),
  };
}

/** Lists that say something when they are empty: a bare lens, and no filter at hand. */
const SAYS_NONE = new Set(["placed", "atHand"]);

/**
 * The draft as text that is the same for the same content: keys in order, and
 * nothing of what is empty, which the server leaves out.
 */
export function canonical(draft: Draft): string {
  return JSON.stringify(draft, (_, value: unknown) => {
    if (typeof value !== "object" || value === null || Array.isArray(value)) return value;
    const filled = Object.entries(value).filter(([key, v]) => !isEmpty(v) || (SAYS_NONE.has(key) && v !== undefined));
    return Object.fromEntries(filled.sort(([a], [b]) => (a < b ? -1 : 1)));
  });
}

const isEmpty = (v: unknown): boolean =>
  v === undefined || v === "" || (typeof v === "object" && v !== null && Object.keys(v).length === 0);

/** So many options are asked for until somebody wants to see all of them. */
export const FEW_OPTIONS = 12;

/** The question that the draft puts on its camera's bench; so many options are written, undefined for all. */
export function requestOf(draft: Draft, bench: Bench, most?: number): Schemas["ShotRequest"] {
  const { look, light, choices, scene = {}, placed } = draft;
  const { profile, rates } = bench.camera;
  return {
    camera: bench.optics,
    kit: bench.kit,
    look,
    light,
    ...choices,
    rates,
    scene,
    ...(profile && { profile }),
    ...(bench.rig.craft && { craft: bench.rig.craft }),
    ...(placed && { placed }),
    ...(most && { most }),
  };
}

/** Puts a filter on or takes it off. The suggestion makes way for the first one put on by hand. */
export function toggled(draft: Draft, answer: Answer, id: string): Draft {
  // What was put on by hand counts at once, before it is answered.
  const on = draft.placed ?? answer.chosen.filters;
  if (on.includes(id)) return { ...draft, placed: on.filter((other) => other !== id) };
  const kept = draft.placed ?? draft.choices.required ?? [];
  return { ...draft, placed: [...kept, id] };
}

/** Forgets what was put on by hand, so that the best option stands again. */
export function unplaced(draft: Draft): Draft {
  const { placed: _, ...rest } = draft;
  return rest;
}

/** The draft with part of its scene changed; what becomes undefined is taken out. */
export function inScene(draft: Draft, part: Partial<Scene>): Draft {
  const scene = Object.entries({ ...draft.scene, ...part }).filter(([, v]) => v !== undefined);
  return { ...draft, scene: Object.fromEntries(scene) };
}

/** The draft with a change that a trade describes, a merge patch of its fields. */
export function traded(draft: Draft, change: Record<string, unknown>): Draft {
  return unplaced(mergePatch.apply(structuredClone(draft), change) as Draft);
}

/** The draft in the hands of another school. */
export function inSchool(draft: Draft, line: Schemas["SchoolLine"]): Draft {
  const { school: _, ...scene } = draft.scene ?? {};
  const look = line.target ? { ...draft.look, target: line.target } : draft.look;
  const isOwn = line.school === "stabiliser-first" || line.school === "free" || line.school === "automatic";
  return unplaced({ ...draft, look, scene: isOwn ? { ...scene, school: line.school as Scene["school"] } : scene });
}

/** The draft with the shutter moved to one of the camera's steps. */
export function atShutter(draft: Draft, target: string): Draft {
  const { school: _, ...scene } = draft.scene ?? {};
  return { ...draft, look: { ...draft.look, target }, scene };
}

/** The same light, written in another form, from the answer that was just given. */
export function rewritten(kind: LightKind, answer: Answer | undefined): Schemas["ShotLight"] {
  const reading = answer?.reading;
  switch (kind) {
    case "looks":
      return { kind, looks: [] };
    case "sky":
      return { kind, sky: { sky: "clear" } };
    case "lux":
      return { kind, at: { text: reading ? String(Number(reading.lux.toPrecision(2))) : "" } };
    case "auto":
      return { kind, at: { shutter: answer?.solve.ladder[0]?.text ?? "" } };
    case "bias":
      return {
        kind,
        at: { bias: answer ? answer.chosen.errorStops.toFixed(1) : "", glass: answer?.chosen.filters ?? [] },
      };
    default:
      return { kind, at: { text: reading?.text ?? "" } };
  }
}

/** The draft after one more look, through the filters that were on. */
export function looked(draft: Draft, answer: Answer, saw: Schemas["Look"]["saw"]): Draft {
  const look = { stops: answer.chosen.stops, saw };
  // What was put on by hand has been looked through; the next look is through what it tells.
  return unplaced({ ...draft, light: { ...draft.light, kind: "looks", looks: [...(draft.light.looks ?? []), look] } });
}

/** The draft as its line says it anew; light that a line has no words for stays. */
export function saidAnew(draft: Draft, said: Schemas["ShotRequest"]): Draft {
  const { look, light, scene, maxLayers, offsetStops, tolerance, priority, allow, fallback, freeLiftStops, atHand } =
    said;
  const choices = { maxLayers, offsetStops, tolerance, priority, allow, fallback, freeLiftStops, atHand };
  return unplaced({
    ...draft,
    look,
    light: light.kind ? light : draft.light,
    scene: scene ?? {},
    choices: {
      ...(Object.fromEntries(Object.entries(choices).filter(([, v]) => v !== undefined)) as Draft["choices"]),
      required: said.required ?? [],
      mounted: draft.choices.mounted ?? [],
    },
  });
}

/** The draft on another camera: its own glass, and a frame rate that it has. */
export function onCamera(draft: Draft, cameras: readonly Schemas["StoredCamera"][], cameraId: string): Draft {
  const camera = cameras.find((c) => c.id === cameraId);
  const rates = camera?.rates ?? [];
  const fps = rates.length === 0 || rates.includes(draft.look.fps) ? draft.look.fps : (rates[0] ?? draft.look.fps);
  const { required: _, atHand: _h, ...choices } = draft.choices;
  const { whatIf: _w, ...scene } = draft.scene ?? {};
  const { rigId: _r, ...held } = draft;
  const light = {
    ...draft.light,
    ...(draft.light.at && { at: { ...draft.light.at, glass: [] } }),
    ...(draft.light.low && { low: { ...draft.light.low, glass: [] } }),
  };
  return unplaced({
    ...held,
    cameraId,
    light,
    look: { ...draft.look, fps },
    choices: { ...choices, mounted: camera?.mounted ?? [] },
    scene,
  });
}

/** The filters that are loose and there to be put on. */
export function looseOf(bench: Bench, { mounted, required, atHand }: Draft["choices"]): Bench["filters"] {
  const isThere = (id: string) => !atHand || atHand.includes(id) || required?.includes(id);
  return bench.filters.filter((f) => !mounted?.includes(f.id) && isThere(f.id));
}

/** The glass that the draft names and that its camera's kit no longer has. */
export function goneFrom(draft: Draft, bench: Bench): string[] {
  const { required = [], mounted = [], atHand = [] } = draft.choices;
  const there = new Set(bench.kit.map((k) => k.id));
  return [...new Set([...(draft.placed ?? []), ...required, ...mounted, ...atHand])].filter(
    (id) => !there.has(id) && id !== NEW_GLASS,
  );
}

/** The draft without glass that is gone; where that was all of it, the best option stands. */
export function without(draft: Draft, gone: readonly string[]): Draft {
  const left = (ids: readonly string[] = []) => ids.filter((id) => !gone.includes(id));
  const placed = left(draft.placed);
  const { choices } = draft;
  return {
    ...unplaced(draft),
    choices: {
      ...choices,
      required: left(choices.required),
      mounted: left(choices.mounted),
      ...(choices.atHand && { atHand: left(choices.atHand) }),
    },
    ...(placed.length > 0 && { placed }),
  };
}

/** The draft with the gear as it is: without what is only being tried. */
export function asBought(draft: Draft): Draft {
  const { whatIf: _, ...scene } = draft.scene ?? {};
  return unplaced({ ...draft, scene });
}

/** What is being tried, in words. */
export function triedWords(whatIf: Schemas["WhatIf"] | undefined): string[] {
  if (!whatIf) return [];
  const { stabiliser, hfovDeg, isoCeiling, glassStops } = whatIf;
  return [
    ...(stabiliser ? [`stabiliser ${stabiliser}`] : []),
    ...(hfovDeg ? [`a view of ${Math.round(hfovDeg)}°`] : []),
    ...(isoCeiling ? [`ISO up to ${Math.round(isoCeiling)}`] : []),
    ...(glassStops ? [`a filter of ${glassStops} stops`] : []),
  ];
}
