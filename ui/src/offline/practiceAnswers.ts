import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { api, Problem, unwrap } from "../api/client";
import { practiceAnswersQuery } from "../api/queries";
import type { Schemas } from "../api/schemas";
import { uuid } from "../lib/uuid";

/** A question that was answered, and has not reached the server yet. */
interface Unsent {
  key: string;
  answer: Schemas["PracticeAnswered"];
}

const KEPT = "pinhole.practice";
const RETRY_MS = 5_000;

function kept(): readonly Unsent[] {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? "[]") as Unsent[];
  } catch {
    return []; // a device whose store refuses, or something else under that name
  }
}

let unsent = kept();
const listeners = new Set<() => void>();

function set(next: readonly Unsent[]): void {
  unsent = next;
  try {
    localStorage.setItem(KEPT, JSON.stringify(next));
  } catch {
    // it waits in this window, and is lost with it
  }
  for (const heard of listeners) heard();
}

/** Keeps an answer on this device until the server has it. */
export function keepAnswer(answer: Schemas["PracticeAnswered"]): void {
  set([...unsent, { key: uuid(), answer }]);
}

const subscribe = (heard: () => void) => {
  listeners.add(heard);
  return () => listeners.delete(heard);
};

/** What waits on this device, oldest first. */
export const useUnsent = (): readonly Unsent[] => useSyncExternalStore(subscribe, () => unsent);

let isSending = false;

async function send(queries: QueryClient): Promise<void> {
  if (isSending) return;
  isSending = true;
  try {
    for (const { key, answer } of unsent) {
      const stored = await unwrap(
        api.POST("/api/practice-answers", { params: { header: { "Idempotency-Key": key } }, body: answer }),
      ).catch((cause: unknown) => {
        // What the server will never take is dropped; all else is sent again later.
        if (cause instanceof Problem && cause.status === 422) return null;
        throw cause;
      });
      if (stored) queries.setQueryData(practiceAnswersQuery.queryKey, (all) => all && [...all, stored]);
      set(unsent.filter((u) => u.key !== key));
    }
  } catch {
    // later
  } finally {
    isSending = false;
  }
}

/** Sends what waits, as long as the place is open. */
export function useSendingAnswers(): void {
  const queries = useQueryClient();
  useEffect(() => {
    const sendNow = () => void send(queries);
    const stop = subscribe(sendNow);
    const timer = setInterval(() => unsent.length > 0 && sendNow(), RETRY_MS);
    sendNow();
    return () => {
      stop();
      clearInterval(timer);
    };
  }, [queries]);
}
