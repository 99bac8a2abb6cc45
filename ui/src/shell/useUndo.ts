import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useSyncExternalStore } from "react";
import { ask } from "../api/ask";
import { nextUndo, onUndoChange, undoLast } from "../api/undo";
import { forgetDraft } from "../places/shot/keptDraft";
import { toaster } from "./toaster";

/** Tells an open shot that it was put back as it was. */
export const UNDONE = "pinhole:undone";

const SHOT = "/api/shots/";

/** What Ctrl+Z would take back, in words, and the taking back. */
export function useUndo(): { next: string; undo: () => Promise<void> } {
  const queries = useQueryClient();
  const next = useSyncExternalStore(onUndoChange, nextUndo);
  const undo = useCallback(async () => {
    const what = nextUndo();
    try {
      const undone = await undoLast(ask);
      if (!undone) return;
      for (const address of undone.addresses) if (address.startsWith(SHOT)) forgetDraft(address.slice(SHOT.length));
      await queries.invalidateQueries();
      for (const address of undone.addresses) window.dispatchEvent(new CustomEvent(UNDONE, { detail: address }));
      toaster.create({ title: `Undone: ${undone.what}` });
    } catch (error) {
      toaster.create({ title: `Not undone: ${what}`, description: error instanceof Error ? error.message : undefined });
    }
  }, [queries]);
  return { next, undo };
}

/** Takes the last stored change back on Ctrl+Z, but where a text is being typed. */
export function useUndoKey(): void {
  const { undo } = useUndo();
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const isUndo = (event.ctrlKey || event.metaKey) && !event.shiftKey && event.key.toLowerCase() === "z";
      if (!isUndo || (event.target instanceof Element && event.target.matches("input, textarea, [contenteditable]")))
        return;
      event.preventDefault();
      void undo();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [undo]);
}
