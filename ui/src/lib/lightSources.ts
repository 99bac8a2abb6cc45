/** What light is read from, called the same everywhere. */
export const LIGHT_SOURCES = {
  meter: "Light meter",
  auto: "Auto exposure",
  bias: "Exposure bias",
  lux: "Lux",
  sky: "Sky",
  looks: "By eye",
  photo: "Photo",
  simulated: "Simulated meter",
} as const;
