import { Skeleton } from "@chakra-ui/react";
import { matchPath } from "react-router";
import type { Ask } from "../api/askAhead";
import {
  benchQuery,
  camerasQuery,
  cardQuery,
  dayQuery,
  filtersQuery,
  presetsQuery,
  shootsQuery,
  shotQuery,
  shotsQuery,
} from "../api/queries";
import type { Schemas } from "../api/schemas";
import { lazily } from "../lib/lazily";
import { lastCard } from "./card/lastCard";

const opening = <Skeleton h="300px" aria-busy="true" aria-label="Opening" />;

interface Address {
  path: string;
  /** What is drawn there is drawn from these. */
  asks?: (ask: Ask, id: string) => unknown;
}

interface PlaceAt extends Address {
  Place: ReturnType<typeof lazily>;
}

/** Where the application opens. */
export const HOME = "/shoot";

/** The first page, whose code is there with all others. */
const FIRST: Address = {
  path: HOME,
  asks: (ask) => [ask(camerasQuery), ask(shootsQuery), ask(shotsQuery), ask(filtersQuery)],
};

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
  {
    path: "card",
    Place: lazily(async () => (await import("./card/CardPlace")).CardStart, opening),
    asks: (ask) =>
      ask(shootsQuery).then((shoots) => {
        const last = lastCard(shoots ?? []);
        return last && ask(cardQuery(last.id));
      }),
  },
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
  for (const { path, asks } of [FIRST, ...PLACES]) {
    const at = matchPath(path, address === "/" ? HOME : address);
    if (at) asks?.(ask, at.params.id ?? "");
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
