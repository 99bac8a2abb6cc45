import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, Problem, type Schemas, unwrap } from "../api/client";
import { cardQuery } from "../api/queries";
import { database, type Waiting } from "./database";

type Entry = Schemas["StoredFieldEntryFields"];

/** So often what waits is tried again while the server is gone. */
const RETRY_MS = 5_000;

/** Other windows of this device hear when the log changes. */
const channel = new BroadcastChannel("pinhole.fieldLog");
const heard = new Set<() => void>();
channel.onmessage = () => tell();

function tell(): void {
  for (const listener of heard) listener();
}

function changed(): void {
  tell();
  channel.postMessage("changed");
}

/** Keeps an entry on this device, and sends it when the server is there. */
export async function log(shootId: string, entry: Entry): Promise<void> {
  await (await database()).add("waiting", { id: newId(), shootId, entry });
  changed();
  void send();
}

/** Takes an entry that the server would not have off this device. */
export async function discard(id: string): Promise<void> {
  const db = await database();
  const key = await db.getKeyFromIndex("waiting", "id", id);
  if (key !== undefined) await db.delete("waiting", key);
  changed();
}

const newId = (): string => {
  const bytes = crypto.getRandomValues(new Uint8Array(16)); // randomUUID is there on https alone
  return [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
};

/** What waits, oldest first. */
async function waitingOnes(): Promise<Waiting[]> {
  return (await database()).getAll("waiting");
}

/** One window sends at a time, in the order in which things were done. */
async function send(): Promise<void> {
  if (navigator.locks) await navigator.locks.request("pinhole.fieldLog", sendAll);
  else await sendAll(); // plain http on a local network has no locks; sending twice stores once
}

async function sendAll(): Promise<void> {
  for (const w of await waitingOnes()) {
    if (w.refused) continue;
    try {
      const path = { id: w.shootId, entry: w.id };
      await unwrap(api.PUT("/api/shoots/{id}/log/{entry}", { params: { path }, body: w.entry }));
      await discard(w.id);
    } catch (cause) {
      if (!(cause instanceof Problem) || cause.status === 401 || cause.status >= 500) return; // later
      const db = await database();
      const key = await db.getKeyFromIndex("waiting", "id", w.id);
      if (key !== undefined) await db.put("waiting", { ...w, refused: cause.message }, key);
      changed();
    }
  }
}

const waitingQuery = { queryKey: ["waiting"], queryFn: waitingOnes, gcTime: 0, networkMode: "always" as const };

/** What waits on this device, of all shoots; it is sent while anything shows it. */
export function useWaiting(): Waiting[] {
  const queries = useQueryClient();
  const { data = [] } = useQuery(waitingQuery);
  useEffect(() => {
    const refresh = () => {
      void queries.invalidateQueries({ queryKey: ["waiting"] });
      void queries.invalidateQueries({ queryKey: ["card"] });
    };
    heard.add(refresh);
    const timer = setInterval(() => void send(), RETRY_MS);
    window.addEventListener("online", send);
    void send();
    return () => {
      heard.delete(refresh);
      clearInterval(timer);
      window.removeEventListener("online", send);
    };
  }, [queries]);
  return data;
}

/** The card of a shoot, with what waits on this device laid over what the server knows. */
export function useCard(shootId: string) {
  const query = useQuery(cardQuery(shootId));
  const waiting = useWaiting().filter((w) => w.shootId === shootId);
  return { ...query, waiting };
}
