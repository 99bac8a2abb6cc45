import type { Schemas } from "../api/client";

/** What carries a camera, by the name that the computation has for it. */
export const ACTIVITIES: Record<NonNullable<Schemas["Craft"]["activity"]>, string> = {
  stand: "Stand",
  held: "Held still",
  walk: "Walk",
  brisk: "Brisk walk",
  run: "Run",
  "helmet-smooth": "Helmet, smooth",
  helmet: "Helmet, rough",
  "bar-smooth": "Bar, smooth",
  bar: "Bar, rough",
  cruise: "Gentle flight",
  freestyle: "Hard flight",
};
