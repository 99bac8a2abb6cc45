import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { type DayPlan, type Moves, useDayPlan } from "../../api/plan";
import { dayQuery, outingQuery, shotsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { useLastGood } from "../../lib/useLastGood";
import { isoIn } from "../../lib/zone";
import { useDayChanges } from "./useDayChanges";

type ShootDay = Schemas["StoredShootDay"];

/** A day as it is stored, its light, and what can be done to it; not what is being dragged. */
export type DayWork = ReturnType<typeof useDay>["work"];

/**
 * A shoot's day: its light and plan as they stand under the hands. A shot that is
 * moved replans at once; it is stored where it is let go.
 */
export function useDay(shootId: string) {
  const { data: day, error, dataUpdatedAt: fetchedAt } = useQuery(dayQuery(shootId));
  const { data: shots } = useQuery(shotsQuery);
  const [moves, setMoves] = useState<Moves>({});
  const request = useMemo(() => day && withMoves(day.request, moves), [day, moves]);
  // The light of the place is asked for apart from the plan: a shot that is moved leaves
  // it as it is, and the plan comes back the sooner.
  const bare = useMemo(() => day && { ...day.request, shots: [], stacks: [], before: {} }, [day]);
  const light = useLastGood(useQuery(outingQuery([shootId, fetchedAt, "light"], bare ?? null)).data);
  const planned = useDayPlan(shootId, fetchedAt, request, moves);
  const changes = useDayChanges(shootId, setMoves);
  const { plan } = planned;
  const answer = useMemo<DayAnswer | undefined>(
    () => (plan && light ? { ...plan, curve: light.curve, days: light.days } : undefined),
    [plan, light],
  );
  const work = useMemo(() => ({ day, shots, light, ...changes }), [day, shots, light, changes]);
  return { work, error: error ?? planned.error, answer, request };
}

/** The plan of a day and its light. */
export type DayAnswer = DayPlan & Pick<Schemas["OutingAnswer"], "curve" | "days">;

const withMoves = (request: Schemas["OutingRequest"], moves: Moves): Schemas["OutingRequest"] => ({
  ...request,
  shots: request.shots.map((s) => ({ ...s, ...moves[s.id] })),
});

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
