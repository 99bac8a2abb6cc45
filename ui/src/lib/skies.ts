/** The skies of a forecast, as they are called. */
export type ForecastSky = "clear" | "partly" | "overcast";

export const skyName = (sky: ForecastSky): string => (sky === "partly" ? "partly cloudy" : sky);
