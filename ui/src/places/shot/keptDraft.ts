import * as z from "zod/mini";
import type { Draft } from "./draft";

/**
 * What is typed is kept on this device at once, with the version it was made on,
 * until the server has it: a reload or a lost server takes nothing away.
 */
export interface KeptDraft {
  version: number;
  draft: Draft;
}

// Only that it is a draft of ours is checked here; its fields the server judges.
const kept = z.object({
  version: z.number(),
  draft: z.looseObject({
    cameraId: z.string(),
    look: z.looseObject({}),
    light: z.looseObject({}),
    choices: z.looseObject({}),
  }),
});

const keyOf = (shotId: string) => `pinhole.draft.${shotId}`;

export function readDraft(shotId: string): KeptDraft | null {
  const text = localStorage.getItem(keyOf(shotId));
  if (!text) return null;
  try {
    const parsed = kept.safeParse(JSON.parse(text));
    return parsed.success ? (parsed.data as unknown as KeptDraft) : null;
  } catch {
    return null;
  }
}

export function keepDraft(shotId: string, draft: KeptDraft): void {
  try {
    localStorage.setItem(keyOf(shotId), JSON.stringify(draft));
  } catch {
    // A full or forbidden storage costs the safety net, not the work.
  }
}

export const forgetDraft = (shotId: string): void => localStorage.removeItem(keyOf(shotId));
