import { decimal } from "./locale";

/** A shutter as it is said: 1/500, 0.8 s. */
export const shutterText = (seconds: number): string =>
  seconds >= 0.3 ? `${decimal(seconds, 1)} s` : `1/${Math.round(1 / seconds)}`;

/** "4.87 ±0.07 stops" */
export const withError = (stops: number, error: number | null | undefined): string =>
  `${decimal(stops, 2)}${error == null ? "" : ` ±${decimal(error, 2)}`} stops`;
