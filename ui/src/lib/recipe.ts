import type { Schemas } from "../api/schemas";

const NAMES: Record<keyof Schemas["StoredRecipe"], string> = {
  whiteBalance: "White balance",
  profile: "Profile",
  sharpness: "Sharpness",
  noiseReduction: "Noise reduction",
  corrections: "Corrections",
  transmission: "Transmission",
  isoLimits: "ISO limits",
  other: "Also",
};

/** What to set beside shutter and ISO, a line each; white balance first, with the glass on. */
export function recipeLines(recipe: Schemas["StoredRecipe"] | undefined): string[] {
  return (Object.keys(NAMES) as (keyof typeof NAMES)[])
    .filter((key) => recipe?.[key])
    .map((key) => `${NAMES[key]}: ${recipe?.[key]}`);
}
