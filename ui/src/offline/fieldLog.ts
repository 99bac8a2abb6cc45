import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, Problem, unwrap } from "../api/client";
import { cardQuery, sessionQuery } from "../api/queries";
import type { Schemas } from "../api/schemas";
import { uuid } from "../lib/uuid";
import { database, type Waiting } from "./database";

type Entry = Schemas["StoredFieldEntryFields"];

/** So often what waits is tried again while the server is gone. */
const RETRY_MS = 5_000;

/** Other windows of this device hear when the log changes. */
const channel = new BroadcastChannel("pinhole.fieldLog");

/**
 * What the device's own store would not take (it is full, or a private window has none): it
 * waits in this window, and is lost with it.
 */
let unkept: Waiting[] = [];

/** What waits, of the store and of this window. */
async function allWaiting(): Promise<Waiting[]> {
  try {
    return [...(await (await database()).getAll("waiting")), ...unkept];
  } catch {
    return unkept;
  }
}

/**
 * Keeps an entry on this device, to be sent when the server is there. Says whether the device
 * keeps it: where its store refuses, this window alone does.
 */
export async function log(shootId: string, entry: Entry): Promise<boolean> {
  const waiting: Waiting = { id: uuid(), shootId, entry };
  let isKept = true;
  try {
    await (await database()).add("waiting", waiting);
    // That it is not cleared away when the device runs out of room; most browsers say nothing of it.
    void navigator.storage?.persist?.();
  } catch {
    isKept = false;
    unkept = [...unkept, waiting];
  }
  changed();
  return isKept;
}

/** Takes an entry off this device. */
export async function discard(id: string): Promise<void> {
  if (unkept.some((w) => w.id === id)) {
    unkept = unkept.filter((w) => w.id !== id);
  } else {
    const db = await database();
    const key = await db.getKeyFromIndex("waiting", "id", id);
    if (key !== undefined) await db.delete("waiting", key);
  }
  changed();
}

/** Notes why the server would not take an entry. */
async function refuse(w: Waiting, refused: string): Promise<void> {
  if (unkept.some((u) => u.id === w.id)) {
    unkept = unkept.map((u) => (u.id === w.id ? { ...u, refused } : u));
  } else {
    const db = await database();
    const key = await db.getKeyFromIndex("waiting", "id", w.id);
    if (key !== undefined) await db.put("waiting", { ...w, refused }, key);
  }
  changed();
}

const listeners = new Set<() => void>();

/** Tells this window and the others that what waits has changed. */
function changed(): void {
  for (const heard of listeners) heard();
  channel.postMessage("changed");
}

/** An entry as the card takes it; nothing for what is no mark. */
export function markOf(e: Entry): Schemas["CardMark"][] {
  if (e.kind !== "tick" && e.kind !== "untick" && e.kind !== "override") return [];
  return [{ turn: e.turn ?? "", step: e.step ?? "", kind: e.kind, at: e.at, words: e.words ?? "" }];
}

/** Sends what waits. One window sends at a time, in the order in which things were done. */
async function send(queries: QueryClient): Promise<void> {
  // Plain http has no locks; what is sent twice is stored once all the same.
  if (navigator.locks) await navigator.locks.request("pinhole.fieldLog", () => sendAll(queries));
  else await sendAll(queries);
}

async function sendAll(queries: QueryClient): Promise<void> {
  for (const w of await allWaiting()) {
    if (w.refused) continue;
    try {
      const path = { id: w.shootId, entry: w.id };
      const stored = await unwrap(api.PUT("/api/shoots/{id}/log/{entry}", { params: { path }, body: w.entry }));
      keep(queries, w.shootId, stored);
      await discard(w.id);
    } catch (cause) {
      if (cause instanceof Problem && cause.status === 401) void queries.invalidateQueries(sessionQuery);
      if (!(cause instanceof Problem) || cause.status === 401 || cause.status >= 500) return; // later
      await refuse(w, cause.message);
    }
  }
}

/** Adds what the server stored to the card, so that it stands there before it is fetched anew. */
function keep(queries: QueryClient, shootId: string, stored: Schemas["StoredFieldEntry"]): void {
  queries.setQueriesData<Schemas["Card"]>({ queryKey: cardQuery(shootId).queryKey }, (card) => {
    if (!card || card.log.some((e) => e.id === stored.id)) return card;
    const marks = [...card.request.marks, ...markOf(stored)];
    const { anchor } = stored;
    if (stored.kind !== "pin" || stored.clash || !anchor) {
      return { ...card, log: [...card.log, stored], request: { ...card.request, marks } };
    }
    const outing = { ...card.request.outing, anchor: { time: anchor.at, ev100: anchor.ev100 } };
    const shoot = { ...card.shoot, day: { ...card.shoot.day, anchor } };
    return { ...card, shoot, log: [...card.log, stored], request: { ...card.request, marks, outing } };
  });
  // What it clashes with is not on this device's card yet.
  if (stored.clash) void queries.invalidateQueries({ queryKey: cardQuery(shootId).queryKey });
  // The day's anchor and readings are other places' too.
  void queries.invalidateQueries({ queryKey: ["day", shootId] });
}

const WAITING = ["waiting"];

/** What waits on this device, of all shoots, oldest first. */
export function useWaiting(): Waiting[] {
  const queries = useQueryClient();
  const { data = [] } = useQuery({ queryKey: WAITING, queryFn: allWaiting });
  useEffect(() => {
    const refresh = () => {
      void queries.invalidateQueries({ queryKey: WAITING });
    };
    // What another window has sent is on the server's card, and no more on this device.
    const refreshAll = () => {
      refresh();
      void queries.invalidateQueries({ queryKey: ["card"] });
    };
    listeners.add(refresh);
    channel.addEventListener("message", refreshAll);
    return () => {
      listeners.delete(refresh);
      channel.removeEventListener("message", refreshAll);
    };
  }, [queries]);
  return data;
}

/** Sends what waits, as long as the page is open: at once, and again while the server is gone. */
export function useSending(): void {
  const queries = useQueryClient();
  useEffect(() => {
    const sendNow = () => void send(queries);
    const sendSome = async () => {
      if ((await allWaiting()).length > 0) sendNow();
    };
    listeners.add(sendNow);
    const timer = setInterval(sendSome, RETRY_MS);
    window.addEventListener("online", sendNow);
    sendNow();
    return () => {
      listeners.delete(sendNow);
      clearInterval(timer);
      window.removeEventListener("online", sendNow);
    };
  }, [queries]);
}

/** The card of a shoot, and what waits on this device for it. */
export function useCard(shootId: string, shot?: string) {
  const query = useQuery(cardQuery(shootId, shot));
  const waiting = useWaiting().filter((w) => w.shootId === shootId);
  return { ...query, waiting };
}
