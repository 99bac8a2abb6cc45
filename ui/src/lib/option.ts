import type { Schemas } from "../api/schemas";
import { angle, signed } from "./format";
import { decimal } from "./locale";
import type { State } from "./StateMark";

type Option = Schemas["Option"];

/** The shutters the camera is set to, in seconds: one, or those between which it floats. */
export function shuttersOf({ mode, shutterS, shutterText }: Option): {
  fastestS: number;
  slowestS: number;
  text: string;
} {
  if (mode?.kind !== "float-shutter") return { fastestS: shutterS, slowestS: shutterS, text: shutterText };
  return { fastestS: mode.fastestS, slowestS: mode.slowestS, text: `${mode.fastestText} to ${mode.slowestText}` };
}

/** What to set: shutter and ISO, or the band in which one of them floats. */
export function settingWords(option: Option): string {
  const { mode, isoText, angleDeg } = option;
  const { text } = shuttersOf(option);
  const degrees = angleDeg && mode?.kind !== "float-shutter" ? ` · ${angle(angleDeg)}` : "";
  return `${text} · ${isoText}${degrees}`;
}

const GIVES: Partial<Record<Option["verdict"], string>> = {
  iso: "before ISO makes it up",
  dark: "before ISO makes it up",
  "float-iso": "before ISO makes it up",
  shutter: "before a faster shutter",
  "float-shutter": "before a faster shutter",
};

/** What is left error, and how much ISO or shutter made good. */
export function errorWords({ errorStops, leftStops, spreadStops, verdict, mode }: Option): string {
  const before = signed(errorStops) === signed(leftStops) ? "" : `, ${signed(errorStops)} ${GIVES[verdict] ?? ""}`;
  const spread = spreadStops >= 0.05 ? `, ±${decimal(spreadStops, 1)}` : "";
  return ` stops error${mode ? " at the highest light" : ""}${spread}${before}`;
}

/** The verdict on a whole answered shot; one without it was never weighed as a whole. */
export const stateOf = ({ settled, state }: Schemas["ShotAnswer"]): State => (settled && state) || "unknown";
