import type { Schemas } from "../api/schemas";

/** What carries a camera, by the name that the computation has for it. */
export const ACTIVITIES: Record<NonNullable<Schemas["Craft"]["activity"]>, string> = {
  stand: "Tripod",
  held: "Handheld",
  walk: "Walk",
  brisk: "Brisk walk",
  run: "Run",
  "helmet-smooth": "Helmet, smooth",
  helmet: "Helmet, rough",
  "bar-smooth": "Handlebar, smooth",
  bar: "Handlebar, rough",
  cruise: "FPV cruise",
  freestyle: "FPV freestyle",
};
