import type { Target } from "./steps";

interface TargetWords {
  heading: string;
  measures: string;
  how: string;
}

/** What each target is, what it measures, and how it is shot. */
export const TARGETS: Record<Target, TargetWords> = {
  wall: {
    heading: "An evenly lit wall",
    measures: "Strength, colour and vignetting",
    how: "Fill the frame with a lit wall or open sky through a white sheet. Widest view; focus, ISO and white balance locked; set the shutter so that each frame comes out alike.",
  },
  edge: {
    heading: "A slanted edge",
    measures: "Sharpness",
    how: "The printed target in the middle, leaning by 5°. Sharpening off, focus locked.",
  },
  lamp: {
    heading: "A bright light beside something black",
    measures: "Flare and haze",
    how: "A bright light on one side, something black on the other. The black still shows; the light may clip.",
  },
};
