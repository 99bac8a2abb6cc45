import { Skeleton } from "@chakra-ui/react";
import { matchPath } from "react-router";
import type { Ask } from "../api/askAhead";
import type { Schemas } from "../api/client";
import { benchQuery, camerasQuery, cardQuery, dayQuery, presetsQuery, shotQuery, shotsQuery } from "../api/queries";
import { lazily } from "../lib/lazily";

const opening = <Skeleton h="300px" aria-busy="true" aria-label="Opening" />;

interface PlaceAt {
  path: string;
  Place: ReturnType<typeof lazily>;
  /** What it is drawn from. */
  asks?: (ask: Ask, id: string) => unknown;
}

/** The larger places by their addresses: their code comes when they are gone to, or in a quiet moment before. */
export const PLACES: readonly PlaceAt[] = [
  {
    path: "shoot/:id",
    Place: lazily(async () => (await import("./day/DayPlace")).DayPlace, opening),
    asks: (ask, id) => [ask(dayQuery(id)), ask(shotsQuery)],
  },
  {
    path: "shot/:id",
    Place: lazily(async () => (await import("./shot/ShotPlace")).ShotPlace, opening),
    asks: (ask, id) => [
      ask(shotQuery(id)).then((shot) => shot && askAround(ask, shot)),
      ask(camerasQuery),
      ask(presetsQuery),
    ],
  },
  { path: "card", Place: lazily(async () => (await import("./card/CardPlace")).CardStart, opening) },
  {
    path: "card/:id",
    Place: lazily(async () => (await import("./card/CardPlace")).CardPlace, opening),
    asks: (ask, id) => ask(cardQuery(id)),
  },
  { path: "kit/:part?", Place: lazily(async () => (await import("./kit/KitPlace")).KitPlace, opening) },
  { path: "measure/:what?", Place: lazily(async () => (await import("./measure/MeasurePlace")).MeasurePlace, opening) },
  { path: "log", Place: lazily(async () => (await import("./log/LogPlace")).LogPlace, opening) },
  { path: "practice", Place: lazily(async () => (await import("./practice/PracticePlace")).PracticePlace, opening) },
];

/** What a shot is drawn from beside itself. */
function askAround(ask: Ask, { cameraId, rigId, shootId, startsAt }: Schemas["StoredShot"]): void {
  void ask(benchQuery(cameraId, rigId));
  if (startsAt) void ask(dayQuery(shootId));
}

/** Asks for what the place at an address is drawn from. */
export function askFor(address: string, ask: Ask): void {
  for (const { path, asks } of PLACES) {
    const id = matchPath(path, address)?.params.id;
    if (id) asks?.(ask, id);
  }
}

// What cannot be loaded now says so where it is drawn.
const quietly = (load: () => Promise<unknown>): Promise<unknown> => load().catch(() => {});

/** Loads the place at an address. */
export async function loadPlace(address: string): Promise<void> {
  const at = PLACES.find(({ path }) => matchPath(path, address));
  if (at) await quietly(at.Place.load);
}

/** Loads all of them. */
export const loadPlaces = (): Promise<unknown> => Promise.all(PLACES.map(({ Place }) => quietly(Place.load)));
