import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { anew } from "../../api/anew";
import { api, Problem, unwrap } from "../../api/client";
import {
  askableQuery,
  cardQuery,
  dayQuery,
  readingsQuery,
  recordsQuery,
  shotQuery,
  shotsQuery,
} from "../../api/queries";
import { beforeUndo } from "../../api/undo";
import { canonical, type Draft, draftOf, type Shot } from "./draft";
import { forgetDraft, keepDraft } from "./keptDraft";

/** Whether what is on the screen is stored. */
export type SaveState =
  | { status: "saved"; at: string }
  | { status: "waiting" }
  | { status: "saving" }
  | { status: "failed"; why: string }
  | { status: "conflict"; theirs: Shot };

const PAUSE_MS = 600; // after the last change, so that typing is one save
const RETRY_MS = 3000;

interface Autosave {
  state: SaveState;
  /** In a conflict: store what is on the screen over what is stored. */
  keepMine: () => void;
  /** In a conflict: go on from what is stored. */
  takeTheirs: () => Draft | null;
}

/** What is known of whether a draft can be stored: an answer may still be on its way. */
export type Storable = "yes" | "no" | "not known yet";

/**
 * Keeps the draft on this device at each change, and stores it a moment later, as
 * long as it can be answered; who leaves before that is known has the server find out.
 * A save names the version it was made on, baseVersion
 * at first; when another came first, saving stops until the user has chosen.
 */
export function useAutosave(shot: Shot, baseVersion: number, draft: Draft, storable: Storable): Autosave {
  const queries = useQueryClient();
  const [state, setState] = useState<SaveState>({ status: "saved", at: shot.updatedAt });
  const version = useRef(baseVersion);
  const stored = useRef(canonical(draftOf(shot)));
  const underway = useRef<Promise<void> | null>(null);
  const hasLeft = useRef(false);
  const canSave = storable === "yes";
  const latest = useRef({ draft, storable });
  latest.current = { draft, storable };
  const text = canonical(draft);
  useEffect(() => {
    if (text === stored.current) forgetDraft(shot.id);
    else keepDraft(shot.id, { version: version.current, draft: latest.current.draft });
  }, [text, shot.id]);

  const send = useCallback(
    async (draft: Draft, sent: string) => {
      setState({ status: "saving" });
      try {
        const params = { path: { id: shot.id }, query: { version: version.current } };
        // keepalive: a save that is under way when the page closes still arrives.
        const saved = await unwrap(api.PUT("/api/shots/{id}", { params, body: draft, keepalive: true }));
        version.current = saved.version;
        stored.current = sent;
        if (canonical(latest.current.draft) === sent) forgetDraft(shot.id);
        queries.setQueryData(shotQuery(shot.id).queryKey, saved);
        for (const { queryKey } of [
          shotsQuery,
          readingsQuery(shot.id),
          dayQuery(shot.shootId),
          cardQuery(shot.shootId),
          askableQuery,
          recordsQuery,
        ])
          void anew(queries, queryKey);
        setState({ status: "saved", at: saved.updatedAt });
      } catch (error) {
        const theirs =
          error instanceof Problem && error.status === 409 ? (error.current as Shot | undefined) : undefined;
        if (theirs && canonical(draftOf(theirs)) === sent) {
          // A save of ours arrived of which no answer came back.
          version.current = theirs.version;
          stored.current = sent;
          forgetDraft(shot.id);
          setState({ status: "saved", at: theirs.updatedAt });
        } else if (theirs) {
          setState({ status: "conflict", theirs });
        } else {
          setState({ status: "failed", why: error instanceof Error ? error.message : String(error) });
        }
      }
    },
    [queries, shot.id, shot.shootId],
  );

  /** Stores the draft, unless that is being done; isUrgent, without its answer too. */
  const save = useCallback(
    async (isUrgent = false) => {
      const { draft, storable } = latest.current;
      const sent = canonical(draft);
      const mayTry = storable === "yes" || ((isUrgent || hasLeft.current) && storable === "not known yet");
      if (underway.current || !mayTry || sent === stored.current) return;
      underway.current = send(draft, sent);
      await underway.current;
      underway.current = null;
      // What was changed while it was on its way has nobody left to save it.
      if (stored.current === sent && hasLeft.current) void save();
    },
    [send],
  );
  const conflicted = useRef(false);
  conflicted.current = state.status === "conflict";
  useEffect(
    () =>
      beforeUndo(async () => {
        await underway.current;
        if (!conflicted.current) await save(true);
      }),
    [save],
  );

  // A change waits for a pause in the typing; a failed save for a better moment.
  useEffect(() => {
    if (state.status === "conflict" || state.status === "saving" || !canSave || text === stored.current) return;
    const timer = setTimeout(() => void save(), state.status === "failed" ? RETRY_MS : PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text, canSave, state, save]);

  // Leaving does not wait for the pause.
  useEffect(() => {
    hasLeft.current = false;
    const leave = () => {
      hasLeft.current = true;
      if (!conflicted.current) void save();
    };
    // A page that is hidden may be shown again.
    const stay = () => {
      hasLeft.current = false;
    };
    window.addEventListener("pagehide", leave);
    window.addEventListener("pageshow", stay);
    return () => {
      window.removeEventListener("pagehide", leave);
      window.removeEventListener("pageshow", stay);
      leave();
    };
  }, [save]);

  const theirs = state.status === "conflict" ? state.theirs : null;
  const isDirty = text !== stored.current;
  return {
    state: state.status === "saved" && isDirty ? { status: "waiting" } : state,
    keepMine: useCallback(() => {
      if (!theirs) return;
      version.current = theirs.version;
      setState({ status: "waiting" });
    }, [theirs]),
    takeTheirs: useCallback(() => {
      if (!theirs) return null;
      const draft = draftOf(theirs);
      version.current = theirs.version;
      stored.current = canonical(draft);
      queries.setQueryData(shotQuery(theirs.id).queryKey, theirs);
      setState({ status: "saved", at: theirs.updatedAt });
      return draft;
    }, [theirs, queries]),
  };
}
