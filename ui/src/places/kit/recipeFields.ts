import type { FieldSpec } from "../../lib/form/Fields";
import { text } from "../../lib/form/formats";

/** What is set beside shutter and ISO: on a camera as it usually is, or as it is held. */
export const RECIPE: readonly FieldSpec[] = [
  { path: "recipe.whiteBalance", label: "White balance", helper: "set with the filter on", w: "230px", format: text },
  { path: "recipe.profile", label: "Picture profile", w: "230px", format: text },
  { path: "recipe.sharpness", label: "Sharpness", w: "150px", format: text },
  { path: "recipe.noiseReduction", label: "Noise reduction", w: "150px", format: text },
  { path: "recipe.corrections", label: "Corrections", w: "230px", format: text },
  { path: "recipe.transmission", label: "Transmission", helper: "as local law allows", w: "300px", format: text },
  { path: "recipe.isoLimits", label: "ISO limits", w: "150px", format: text },
  { path: "recipe.other", label: "Anything else", w: "300px", format: text },
];
