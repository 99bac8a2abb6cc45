import { Skeleton } from "@chakra-ui/react";
import { matchPath } from "react-router";
import { lazily } from "../lib/lazily";

const opening = <Skeleton h="300px" aria-busy="true" aria-label="Opening" />;

/** The larger places by their addresses: their code comes when they are gone to, or in a quiet moment before. */
export const PLACES = [
  { path: "shoot/:id", Place: lazily(async () => (await import("./day/DayPlace")).DayPlace, opening) },
  { path: "shot/:id", Place: lazily(async () => (await import("./shot/ShotPlace")).ShotPlace, opening) },
  { path: "card", Place: lazily(async () => (await import("./card/CardPlace")).CardStart, opening) },
  { path: "card/:id", Place: lazily(async () => (await import("./card/CardPlace")).CardPlace, opening) },
  { path: "kit/:part?", Place: lazily(async () => (await import("./kit/KitPlace")).KitPlace, opening) },
  { path: "measure/:what?", Place: lazily(async () => (await import("./measure/MeasurePlace")).MeasurePlace, opening) },
  { path: "log", Place: lazily(async () => (await import("./log/LogPlace")).LogPlace, opening) },
  { path: "practice", Place: lazily(async () => (await import("./practice/PracticePlace")).PracticePlace, opening) },
];

// What cannot be loaded now says so where it is drawn.
const quietly = (load: () => Promise<unknown>): Promise<unknown> => load().catch(() => {});

/** Loads the place at an address. */
export async function loadPlace(address: string): Promise<void> {
  const at = PLACES.find(({ path }) => matchPath(path, address));
  if (at) await quietly(at.Place.load);
}

/** Loads all of them. */
export const loadPlaces = (): Promise<unknown> => Promise.all(PLACES.map(({ Place }) => quietly(Place.load)));
