import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useRef, useState } from "react";
import { api, type Schemas, unwrap } from "../../api/client";
import { dayQuery, outingQuery, shootsQuery, shotsQuery } from "../../api/queries";
import { useLastGood } from "../../lib/useLastGood";
import { isoIn } from "../../lib/zone";
import { offerUndo, toaster } from "../../shell/toaster";
import { draftOf } from "../shot/draft";

type Shoot = Schemas["StoredShoot"];
type ShootDay = Schemas["StoredShootDay"];

/** What is under the hands and not stored yet: shots that are being moved. */
/** So long a step leaves next to nothing of the curve. */
const DAY_S = 86_400;

type Moves = Record<string, { from: string; minutes: number }>;

/**
 * A shoot's day: its light and plan as they stand under the hands. A shot that is
 * moved replans at once; it is stored where it is let go.
 */
export function useDay(shootId: string) {
  const queries = useQueryClient();
  const { data: day, error, dataUpdatedAt: fetchedAt } = useQuery(dayQuery(shootId));
  const { data: shots } = useQuery(shotsQuery);
  const [moves, setMoves] = useState<Moves>({});
  const request = useMemo(
    () => (day ? { ...day.request, shots: day.request.shots.map((s) => ({ ...s, ...moves[s.id] })) } : null),
    [day, moves],
  );
  // The light of the place is asked for apart from the plan: a shot that is moved leaves
  // it as it is, and the plan comes back the sooner.
  const bare = useMemo(() => day && { ...day.request, shots: [], stacks: [], before: {} }, [day]);
  const light = useQuery(outingQuery([shootId, fetchedAt, "light"], bare ?? null)).data;
  const asked = useQuery(outingQuery([shootId, fetchedAt, moves], request && { ...request, stepS: DAY_S }));
  const plan = useLastGood(asked.data);
  const answer = useMemo(
    () => (plan && light ? { ...plan, curve: light.curve, days: light.days } : undefined),
    [plan, light],
  );
  const refresh = () => {
    queries.invalidateQueries({ queryKey: dayQuery(shootId).queryKey });
    queries.invalidateQueries({ queryKey: shotsQuery.queryKey });
    queries.invalidateQueries({ queryKey: shootsQuery.queryKey });
  };
  const failed = (error: Error) => toaster.create({ title: "Not stored", description: error.message });

  const storeShoot = useMutation({
    mutationFn: (change: Partial<Pick<Shoot, "name" | "place" | "notes" | "day" | "kept">>) => {
      if (!day) throw new Error("The shoot is not there.");
      const { id, version, createdAt: _c, updatedAt: _u, deletedAt: _d, ...fields } = day.shoot;
      return unwrap(
        api.PUT("/api/shoots/{id}", { params: { path: { id }, query: { version } }, body: { ...fields, ...change } }),
      );
    },
    onSuccess: (shoot) => queries.setQueryData(dayQuery(shootId).queryKey, (old) => (old ? { ...old, shoot } : old)),
    onError: failed,
    onSettled: refresh,
  });
  const storeShot = useMutation({
    mutationFn: ({ id, change }: { id: string; change: Partial<Schemas["StoredShotFields"]> }) => {
      const shot = shots?.find((s) => s.id === id);
      if (!shot) throw new Error("The shot is not there any more.");
      return unwrap(
        api.PUT("/api/shots/{id}", {
          params: { path: { id }, query: { version: shot.version } },
          body: { ...draftOf(shot), ...change },
        }),
      );
    },
    onSuccess: (saved) => {
      queries.setQueryData(shotsQuery.queryKey, (all) => all?.map((s) => (s.id === saved.id ? saved : s)));
      queries.removeQueries({ queryKey: ["shot", saved.id] });
    },
    onError: failed,
    onSettled: async (_saved, _error, { id }) => {
      await queries.invalidateQueries({ queryKey: dayQuery(shootId).queryKey });
      setMoves(({ [id]: _, ...rest }) => rest);
    },
  });
  const setDay = (change: Partial<ShootDay>) =>
    storeShoot.mutate({ day: withoutUndefined({ ...day?.shoot.day, ...change }) });

  // One function for good, so that bars which do not move need not be drawn again.
  const around = useRef({ zone: "", shots, store: storeShot.mutate });
  around.current = { zone: day?.zone ?? "", shots, store: storeShot.mutate };
  const moveShot = useCallback((id: string, at: number, minutes: number, isDone: boolean) => {
    const { zone, shots: all, store } = around.current;
    const from = isoIn(at, zone);
    setMoves((now) => ({ ...now, [id]: { from, minutes } }));
    const shot = all?.find((s) => s.id === id);
    if (!isDone || !shot) return;
    store({ id, change: { startsAt: from, day: { ...shot.day, minutes } } });
    const { startsAt, day: before } = shot;
    if (startsAt)
      offerUndo(`${shot.name} moved`, () =>
        around.current.store({ id, change: { startsAt, ...(before && { day: before }) } }),
      );
  }, []);

  return {
    day,
    shots,
    error: error ?? asked.error,
    answer,
    request,
    setDay,
    storeShoot: storeShoot.mutate,
    moveShot,
    changeShot: (id: string, change: Partial<Schemas["StoredShotDay"]>) => {
      const shot = shots?.find((s) => s.id === id);
      if (shot) storeShot.mutate({ id, change: { day: withoutUndefined({ ...shot.day, ...change }) } });
    },
    setSpeed: (id: string, speedMps: number) => {
      const shot = shots?.find((s) => s.id === id);
      if (!shot) return;
      const scene = { ...shot.scene, movement: { ...shot.scene?.movement, speedMps } };
      storeShot.mutate({ id, change: { scene } });
      toaster.create({ title: `${shot.name} moves at ${speedMps} m/s` });
    },
    placeShot: (id: string, at: number) => storeShot.mutate({ id, change: { startsAt: isoIn(at, day?.zone ?? "") } }),
    refresh,
  };
}

const withoutUndefined = <T extends object>(value: T): T =>
  Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T;

/** The sky hour by hour with one hour changed, as turns; the change holds until the next turn. */
export function turned(
  request: Schemas["OutingRequest"],
  from: number,
  sky: Schemas["SkyTurn"]["sky"],
  zone: string,
): Pick<ShootDay, "sky" | "turns"> {
  const start = Date.parse(request.from);
  const turns = [
    { from: start, sky: request.sky },
    ...(request.turns ?? []).map((t) => ({ from: Date.parse(t.from), sky: t.sky })),
  ].filter((t) => t.from !== from);
  const all = [...turns, { from, sky }].sort((a, b) => a.from - b.from);
  const kept = all.filter((t, i) => i === 0 || t.sky !== all[i - 1]?.sky);
  return {
    sky: kept[0]?.sky ?? request.sky,
    turns: kept.slice(1).map((t) => ({ from: isoIn(t.from, zone), sky: t.sky })),
  };
}
