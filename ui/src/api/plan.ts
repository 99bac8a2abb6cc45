import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { asPut } from "../lib/glass";
import { useLastGood } from "../lib/useLastGood";
import { dayQuery, outingQuery } from "./queries";
import type { Schemas } from "./schemas";
import { useAllComputed } from "./useComputed";

type Request = Schemas["OutingRequest"];
type Answer = Schemas["OutingAnswer"];

/** The plan of a day, without its light. */
export type DayPlan = Pick<Answer, "shots" | "swaps" | "names" | "unknown" | "changes">;

/** What is under the hands and not stored yet: shots that are being moved. */
export type Moves = Record<string, { from: string; minutes: number }>;

/** So long a step leaves next to nothing of the curve. */
const NO_CURVE_S = 86_400;

const NO_MOVES: Moves = {};

/**
 * The plan of a day, in which shots may be moved already. Each camera is asked for by itself, since none's
 * glass hangs on what another carries: a shot that is moved leaves the others' answers as they are.
 */
export function useDayPlan(
  shootId: string,
  fetchedAt: number,
  request: Request | undefined,
  moves: Moves = NO_MOVES,
): { plan: DayPlan | undefined; error: Error | null; isAwaited: boolean } {
  const queries = useMemo(
    () => (request ? byCamera(request).map((part) => partQuery(shootId, fetchedAt, part, moves)) : []),
    [shootId, fetchedAt, request, moves],
  );
  const { answers, error, isLoading } = useAllComputed(queries);
  const plan = useLastGood(
    useMemo(() => (request && answers ? joined(request, answers) : undefined), [request, answers]),
  );
  return { plan, error, isAwaited: !plan && isLoading };
}

/** What is asked of each camera, in the order of its first shot. */
const byCamera = (request: Request): Request[] =>
  [...new Set(request.shots.map((s) => s.cameraId))].map((id) => ofCamera(request, id));

/** What of a day concerns one camera. */
const ofCamera = (request: Request, id: string): Request => ({
  ...request,
  stepS: NO_CURVE_S,
  shots: request.shots.filter((s) => s.cameraId === id),
  stacks: request.stacks.filter((s) => !s.cameraId || s.cameraId === id),
  ...(request.held && { held: request.held.filter((h) => h.cameraId === id) }),
});

/** The key of a part on which nothing is being moved is the same wherever it is asked. */
function partQuery(shootId: string, fetchedAt: number, part: Request, moves: Moves) {
  const moved = Object.fromEntries(part.shots.flatMap(({ id }) => (moves[id] ? [[id, moves[id]]] : [])));
  return outingQuery([shootId, fetchedAt, part.shots[0]?.cameraId, moved], part);
}

/** The plans of all cameras as that of the day: in order of time, and of what was asked where that ties. */
function joined(request: Request, answers: readonly Answer[]): DayPlan {
  const place = new Map(request.shots.map((s, i) => [s.id, i]));
  const order = (id: string) => place.get(id) ?? 0;
  const begins = (plan: Schemas["OutingPlan"]) => Date.parse(plan.packs[0]?.from ?? "");
  return {
    shots: answers.flatMap((a) => a.shots).sort((a, b) => begins(a) - begins(b) || order(a.id) - order(b.id)),
    swaps: answers.flatMap((a) => a.swaps).sort((a, b) => Date.parse(a.at) - Date.parse(b.at)),
    names: Object.assign({}, ...answers.map((a) => a.names)),
    unknown: answers.flatMap((a) => a.unknown).sort((a, b) => order(a) - order(b)),
    changes: answers.flatMap((a) => a.changes),
  };
}

/** What the plan of a day says of one shot. */
export interface Planned {
  plan: Schemas["OutingPlan"];
  /** What its glass is called: one piece, or another with each battery. */
  glass: string;
}

/**
 * The plan of a shoot as it is stored, by shot; of one shot alone, its camera's. It is empty where
 * nothing has a time. While it is awaited, nothing else may be said of its shots.
 */
export function usePlan(
  shootId: string | undefined,
  shotId?: string,
): { of: Map<string, Planned>; isAwaited: boolean } {
  const { data: day, dataUpdatedAt, isLoading } = useQuery({ ...dayQuery(shootId ?? ""), enabled: Boolean(shootId) });
  const request = useMemo(() => {
    const shot = day?.request.shots.find((s) => s.id === shotId);
    return day && shot ? ofCamera(day.request, shot.cameraId) : day?.request;
  }, [day, shotId]);
  const { plan, isAwaited } = useDayPlan(shootId ?? "", dataUpdatedAt, request);
  const of = useMemo(
    () => new Map(plan?.shots.map((p) => [p.id, { plan: p, glass: packWords(p, plan.names) }])),
    [plan],
  );
  return { of, isAwaited: isLoading || isAwaited };
}

/** The glass of a planned shot. */
export function packWords(plan: Schemas["OutingPlan"], names: Record<string, string>): string {
  const glass = plan.packs.map((k) => names[k.stack] ?? k.stack).filter((name, i, all) => name !== all[i - 1]);
  const packs = plan.packs.length > 1 ? ` (${plan.packs.length} batteries)` : "";
  return asPut(glass.join(", then "), plan.placed) + packs;
}
