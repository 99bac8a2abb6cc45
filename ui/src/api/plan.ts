import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { asPut } from "../lib/glass";
import { useLastGood } from "../lib/useLastGood";
import type { Schemas } from "./client";
import { dayQuery, outingQuery } from "./queries";

/** So long a step leaves next to nothing of the curve. */
export const NO_CURVE_S = 86_400;

/** What the plan of a day says of one shot. */
export interface Planned {
  plan: Schemas["OutingPlan"];
  /** What its glass is called: one piece, or another with each battery. */
  glass: string;
}

/**
 * The plan of a shoot as it is stored, by shot; empty where nothing has a time. While it
 * is awaited, nothing else may be said of its shots.
 */
export function usePlan(shootId: string | undefined): { of: Map<string, Planned>; isAwaited: boolean } {
  const { data: day, dataUpdatedAt, isLoading } = useQuery({ ...dayQuery(shootId ?? ""), enabled: Boolean(shootId) });
  const request = useMemo(() => (day ? { ...day.request, stepS: NO_CURVE_S } : null), [day]);
  // The key is that of a day on which nothing is being moved.
  const { data, isLoading: isBeingMade } = useQuery(outingQuery([shootId, dataUpdatedAt, {}], request));
  const answer = useLastGood(data);
  const of = useMemo(() => {
    return new Map(answer?.shots.map((plan) => [plan.id, { plan, glass: packWords(plan, answer.names) }]));
  }, [answer]);
  return { of, isAwaited: isLoading || isBeingMade };
}

/** The glass of a planned shot. */
export function packWords(plan: Schemas["OutingPlan"], names: Record<string, string>): string {
  const glass = plan.packs.map((k) => names[k.stack] ?? k.stack).filter((name, i, all) => name !== all[i - 1]);
  const packs = plan.packs.length > 1 ? ` (${plan.packs.length} batteries)` : "";
  return asPut(glass.join(", then "), plan.placed) + packs;
}
