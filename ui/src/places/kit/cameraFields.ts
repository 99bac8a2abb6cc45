import type { FieldSpec } from "../../lib/form/Fields";
import { number, numbers, text, words } from "../../lib/form/formats";
import { RECIPE } from "./recipeFields";

const EXPOSURE: readonly FieldSpec[] = [
  { path: "name", label: "Name", w: "260px", format: text },
  { path: "aperture", label: "Aperture (f-number)", w: "240px", format: number(), source: "printed" },
  { path: "tNumber", label: "T-number, if known", w: "240px", format: number(), source: "measured" },
  { path: "isoBase", label: "Base ISO", w: "200px", format: number(), source: "printed" },
  { path: "isoCeiling", label: "Highest usable ISO", w: "240px", format: number(), source: "measured" },
  { path: "rates", label: "Frame rates", helper: "25, 50, 59.94", w: "300px", format: words, source: "printed" },
  { path: "frameSizes", label: "Frame sizes", helper: "the usual first", w: "300px", format: words, source: "printed" },
  {
    path: "steps",
    label: "Shutter steps its menu offers",
    helper: "1/50, 1/60, … or nothing for any",
    w: "100%",
    format: words,
    source: "printed",
  },
];

const PICTURE: readonly FieldSpec[] = [
  { path: "profile.lens.hfovDeg", label: "Field of view, °", w: "230px", format: number(), source: "printed" },
  {
    path: "profile.lens.projection",
    label: "Projection",
    w: "250px",
    options: { rectilinear: "straight lines", equidistant: "fisheye" },
    source: "printed",
  },
  { path: "profile.focalMm", label: "True focal length, mm", w: "240px", format: number(), source: "printed" },
  {
    path: "profile.stabiliser",
    label: "Stabiliser",
    w: "280px",
    options: {
      "": "not known",
      none: "none",
      electronic: "electronic",
      gimbal: "gimbal",
      "gimbal+electronic": "gimbal and electronic",
      post: "later, from gyro",
    },
    source: "printed",
  },
  { path: "profile.cropShare", label: "It crops away, %", w: "220px", format: number(100), source: "measured" },
  {
    path: "profile.trialS",
    label: "Slowest that held, 1/s",
    helper: "in a shutter test",
    w: "290px",
    source: "measured",
    format: {
      ...number(),
      write: (s: number | undefined) => (s === undefined ? "" : String(Number((1 / s).toPrecision(6)))),
      read: (typed: string) => {
        const n = number().read(typed);
        return typeof n === "number" && n > 0 ? 1 / n : n;
      },
    },
  },
  {
    path: "profile.trialShakeDegS",
    label: "Shake of that test, °/s",
    helper: "walking calmly, unless you say",
    w: "270px",
    format: number(),
    source: "measured",
  },
  {
    path: "profile.viewsDeg",
    label: "Other fields of view, °",
    helper: "that it can be switched to",
    w: "250px",
    format: numbers,
    source: "printed",
  },
  { path: "profile.readoutS", label: "Sensor readout, ms", w: "230px", format: number(1000), source: "measured" },
  {
    path: "profile.automatic.priority",
    label: "Auto exposure",
    w: "290px",
    options: { "": "not known", shutter: "moves the shutter first", iso: "raises ISO first" },
    source: "measured",
  },
  {
    path: "profile.maxTiltDeg",
    label: "Tilts up with a filter on, °",
    w: "270px",
    format: number(),
    source: "measured",
  },
  { path: "profile.flies", label: "Flies on a drone", w: "140px", isFlag: true },
  { path: "massG", label: "Mass", w: "200px", format: number(), quantity: "mass", source: "printed" },
  { path: "packMin", label: "A battery lasts, min", w: "250px", format: number(), source: "measured" },
  { path: "sealedPort", label: "Sealed port", w: "130px", isFlag: true },
];

/** The fields of a camera. */
export const GROUPS = [
  { heading: "Exposure", specs: EXPOSURE },
  { heading: "Picture and motion", specs: PICTURE },
  { heading: "Settings recipe", specs: RECIPE },
];
/** What a camera cannot be without. */
export const ALWAYS = ["name", "aperture", "isoBase", "isoCeiling", "rates"];
export const SPECS = GROUPS.flatMap((g) => g.specs);
export const PATHS = SPECS.map((s) => s.path);
