import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { cardAnswerQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { buzz } from "../../lib/buzz";
import { useLastGood } from "../../lib/useLastGood";
import { isoIn } from "../../lib/zone";
import type { Waiting } from "../../offline/database";
import { log, markOf, useCard } from "../../offline/fieldLog";
import { toaster } from "../../shell/toaster";

const MINUTE_MS = 60_000;
/** So long before its first turn a shoot is shown, when it is shown ahead of its day. */
const AHEAD_MS = 10 * MINUTE_MS;

export type Turn = Schemas["CardTurn"];
export type Entry = Schemas["StoredFieldEntryFields"];

/** The card of a shoot as it stands at this minute, and what can be noted on it. */
export type CardWork = NonNullable<ReturnType<typeof useCardWork>["work"]>;

/**
 * A shoot's card: what the server or this device knows, with what waits here laid over
 * it, computed for now. Off its days it is shown as at an instant, to be looked through
 * beforehand.
 */
export function useCardWork(shootId: string) {
  const clock = useMinute();
  const [params, setParams] = useSearchParams();
  const shot = params.get("shot") ?? undefined;
  const { data: card, error, waiting } = useCard(shootId, shot);
  const wanted = Date.parse(params.get("at") ?? "");
  const isOff = card !== undefined && !isWithin(card.request.outing, clock);
  const shownAt = Number.isNaN(wanted) ? (isOff && card ? aheadOf(card.request.outing, clock) : clock) : wanted;
  const zone = card?.zone ?? "";
  const waits = JSON.stringify(waiting);
  const [isWhole, setWhole] = useState(false);
  const request = useMemo(() => {
    if (!card) return undefined;
    const { known, ...asked } = laidOver(card.request, JSON.parse(waits) as Waiting[], isoIn(shownAt, card.zone));
    return known && !isWhole ? { ...asked, known } : asked;
  }, [card, waits, shownAt, isWhole]);
  const asked = useQuery(cardAnswerQuery(request ?? null));
  const answer = useLastGood(asked.data);
  const work =
    card && request && answer
      ? {
          card,
          request,
          answer,
          waiting,
          zone,
          shownAt,
          /** Asks for every step of the checklists, however familiar the glass is. */
          askWhole: () => setWhole(true),
          /** Whether the clock shown is not the clock on the wall. */
          isAhead: shownAt !== clock,
          showAt: (at: number | null) =>
            setParams({ ...(shot && { shot }), ...(at !== null && { at: isoIn(at, zone) }) }, { replace: true }),
          note: async (entry: Omit<Entry, "at" | "device">) => {
            buzz("done");
            const isKept = await log(shootId, { ...entry, at: isoIn(Date.now(), zone), device: deviceName() });
            if (!isKept) toaster.create(NOT_KEPT);
          },
        }
      : undefined;
  return { work, error: error ?? asked.error };
}

const NOT_KEPT = {
  title: "This device keeps nothing: its storage is full or closed",
  description:
    "What you did waits in this window until the server has it. Keep it open; under Log it can be copied out.",
  duration: 30_000,
  closable: true,
};

const minute = () => Math.floor(Date.now() / MINUTE_MS) * MINUTE_MS;

/** The minute it is. */
function useMinute(): number {
  const [now, setNow] = useState(minute);
  useEffect(() => {
    const timer = setInterval(() => setNow(minute()), 5_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

const isWithin = (outing: Schemas["OutingRequest"], at: number): boolean =>
  Date.parse(outing.from) <= at && at < Date.parse(outing.to);

/** Shortly before the first turn; now, where there is none. */
function aheadOf(outing: Schemas["OutingRequest"], now: number): number {
  const first = Math.min(...outing.shots.map((s) => Date.parse(s.from)));
  return Number.isFinite(first) ? first - AHEAD_MS : now;
}

/** A card's request at an instant, with what was done on this device and not sent yet. */
function laidOver(request: Schemas["CardRequest"], waiting: Waiting[], now: string): Schemas["CardRequest"] {
  const mine = waiting.filter((w) => !w.refused).map((w) => w.entry);
  const pin = mine.filter((e) => e.kind === "pin").at(-1)?.anchor;
  return {
    ...request,
    now,
    marks: [...request.marks, ...mine.flatMap(markOf)],
    outing: pin ? { ...request.outing, anchor: { time: pin.at, ev100: pin.ev100 } } : request.outing,
  };
}

/** A name for this window, so that a log says which of two it was. */
function deviceName(): string {
  const key = "pinhole.window";
  const name = sessionStorage.getItem(key) ?? `window ${Math.random().toString(36).slice(2, 6)}`;
  sessionStorage.setItem(key, name);
  return name;
}
