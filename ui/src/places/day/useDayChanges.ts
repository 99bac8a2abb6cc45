import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useRef } from "react";
import { api, unwrap } from "../../api/client";
import type { Moves } from "../../api/plan";
import { putIn } from "../../api/putIn";
import { dayQuery, shootsQuery, shotsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { amountOf } from "../../lib/units";
import { isoIn } from "../../lib/zone";
import { offerUndo, sayNotSaved, toaster } from "../../shell/toaster";
import { draftOf } from "../shot/draft";

type ShootChange = Partial<Pick<Schemas["StoredShoot"], "name" | "place" | "notes" | "day" | "kept">>;
type ShotChange = Partial<Schemas["StoredShotFields"]>;
type ShootDay = Schemas["StoredShootDay"];

/** A change of a shot, the move that it stores, and what takes that back. */
interface ShotMade {
  id: string;
  change: (now: Schemas["StoredShot"]) => ShotChange;
  move?: Moves[string];
  back?: ShotChange;
}

/**
 * Everything that can be done to a day. Changes of one thing are stored one after the
 * other, each on the version that the one before it made. The changes never become
 * other functions, so that what calls them need not be drawn again.
 */
export function useDayChanges(shootId: string, setMoves: (change: (now: Moves) => Moves) => void) {
  const queries = useQueryClient();
  const dayKey = dayQuery(shootId).queryKey;

  const storeShoot = useMutation({
    scope: { id: `shoot ${shootId}` },
    mutationFn: (change: (now: Schemas["StoredShoot"]) => ShootChange) => {
      const day = queries.getQueryData(dayKey);
      if (!day) throw new Error("The shoot is not there.");
      const { id, version, createdAt: _c, updatedAt: _u, deletedAt: _d, ...fields } = day.shoot;
      const body = { ...fields, ...change(day.shoot) };
      return unwrap(api.PUT("/api/shoots/{id}", { params: { path: { id }, query: { version } }, body }));
    },
    onSuccess: (shoot) => queries.setQueryData(dayKey, (old) => (old ? { ...old, shoot } : old)),
    onError: sayNotSaved,
    onSettled: () => {
      queries.invalidateQueries({ queryKey: dayKey });
      queries.invalidateQueries({ queryKey: shootsQuery.queryKey });
    },
  });
  const storeShot = useMutation({
    scope: { id: `shots of ${shootId}` },
    mutationFn: ({ id, change }: ShotMade) => {
      const shot = queries.getQueryData(shotsQuery.queryKey)?.find((s) => s.id === id);
      if (!shot) throw new Error("The shot is not there any more.");
      const body = { ...draftOf(shot), ...change(shot) };
      return unwrap(api.PUT("/api/shots/{id}", { params: { path: { id }, query: { version: shot.version } }, body }));
    },
    onSuccess: (saved, { id, back }) => {
      putIn(queries, shotsQuery, saved);
      queries.removeQueries({ queryKey: ["shot", id] });
      if (back) offerUndo(`${saved.name} moved`, () => store.current.shot({ id, change: () => back }), `move ${id}`);
    },
    onError: sayNotSaved,
    onSettled: async (_saved, _error, { id, move }) => {
      await queries.invalidateQueries({ queryKey: dayKey });
      // What was moved again in the meantime stays under the hands.
      setMoves((now) => {
        const { [id]: held, ...rest } = now;
        return held?.from === move?.from && held?.minutes === move?.minutes ? rest : now;
      });
    },
  });
  const store = useRef({ shoot: storeShoot.mutate, shot: storeShot.mutate });
  store.current = { shoot: storeShoot.mutate, shot: storeShot.mutate };

  return useMemo(() => {
    const zone = () => queries.getQueryData(dayQuery(shootId).queryKey)?.zone ?? "";
    const shotOf = (id: string) => queries.getQueryData(shotsQuery.queryKey)?.find((s) => s.id === id);
    return {
      keepPlan: (kept: Schemas["KeptPlan"]) => store.current.shoot(() => ({ kept })),
      setDay: (change: Partial<ShootDay>) =>
        store.current.shoot(({ day }) => ({ day: withoutUndefined({ ...day, ...change }) })),
      moveShot: (id: string, at: number, minutes: number, isDone: boolean) => {
        const from = isoIn(at, zone());
        setMoves((now) => ({ ...now, [id]: { from, minutes } }));
        const before = shotOf(id);
        if (!isDone || !before) return;
        const { startsAt, day } = before;
        store.current.shot({
          id,
          move: { from, minutes },
          change: (now) => ({ startsAt: from, day: { ...now.day, minutes } }),
          ...(startsAt && { back: { startsAt, ...(day && { day }) } }),
        });
      },
      changeShot: (id: string, change: Partial<Schemas["StoredShotDay"]>) =>
        store.current.shot({ id, change: (now) => ({ day: withoutUndefined({ ...now.day, ...change }) }) }),
      setSpeed: (id: string, speedMps: number) => {
        store.current.shot({
          id,
          change: ({ scene }) => ({ scene: { ...scene, movement: { ...scene?.movement, speedMps } } }),
        });
        toaster.create({ title: `${shotOf(id)?.name} moves at ${amountOf("speed", speedMps)}` });
      },
      placeShot: (id: string, at: number) =>
        store.current.shot({ id, change: () => ({ startsAt: isoIn(at, zone()) }) }),
    };
  }, [queries, shootId, setMoves]);
}

const withoutUndefined = <T extends object>(value: T): T =>
  Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T;
