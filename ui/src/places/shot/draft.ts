import type { Schemas } from "../../api/client";

/** A shot as it stands under the hands: what is typed, before it is stored. */
export type Draft = Schemas["StoredShotFields"];
export type Shot = Schemas["StoredShot"];
export type Bench = Schemas["Bench"];
export type Answer = Schemas["ShotAnswer"];
export type LightKind = Schemas["ShotLight"]["kind"];

/** The fields of a stored shot that are edited. */
export function draftOf(shot: Shot): Draft {
  const { shootId, cameraId, name, startsAt, look, light, choices, placed } = shot;
  return { shootId, cameraId, name, look, light, choices, ...(startsAt && { startsAt }), ...(placed && { placed }) };
}

/** The question that the draft puts on its camera's bench. */
export function requestOf(draft: Draft, bench: Bench): Schemas["ShotRequest"] {
  const { look, light, choices, placed } = draft;
  return { camera: bench.optics, kit: bench.kit, look, light, ...choices, ...(placed && { placed }) };
}

/** Puts a filter on or takes it off. The suggestion makes way for the first one put on by hand. */
export function toggled(draft: Draft, answer: Answer, id: string): Draft {
  const on = answer.chosen.filters;
  if (on.includes(id)) return { ...draft, placed: on.filter((other) => other !== id) };
  const kept = answer.placed ? on : (draft.choices.required ?? []);
  return { ...draft, placed: [...kept, id] };
}

/** Forgets what was put on by hand, so that the best option stands again. */
export function unplaced(draft: Draft): Draft {
  const { placed: _, ...rest } = draft;
  return rest;
}

/** The same light, written in another form, from the answer that was just given. */
export function rewritten(kind: LightKind, answer: Answer | undefined): Schemas["ShotLight"] {
  const reading = answer?.reading;
  switch (kind) {
    case "looks":
      return { kind, looks: [] };
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
