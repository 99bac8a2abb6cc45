import { useCallback, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/schemas";
import {
  type Answer,
  asBought,
  atShutter,
  canonical,
  type Draft,
  draftOf,
  inScene,
  inSchool,
  type LightKind,
  looked,
  onCamera,
  rewritten,
  type Scene,
  type Shot,
  saidAnew,
  toggled,
  traded,
  unplaced,
  without,
} from "./draft";
import { type KeptDraft, readDraft } from "./keptDraft";

/** What the changes of a draft are made with, as it stands when they are made. */
export interface Around {
  answer: Answer;
  cameras: readonly Schemas["StoredCamera"][];
}

/**
 * The draft of a shot and everything that can be done to it. The changes never
 * become other functions, so that what calls them need not be drawn again.
 */
export function useShotDraft(shot: Shot) {
  const [kept] = useState(() => unsaved(shot));
  const [draft, setDraft] = useState<Draft>(() => kept?.draft ?? draftOf(shot));
  const [made, setMade] = useState<{ does: string; before: Draft } | null>(null);
  const latest = useRef<{ draft: Draft; made: typeof made; around: Around | null }>({ draft, made, around: null });
  latest.current = { ...latest.current, draft, made };

  /** Tells what the changes are made with; called on every drawing. */
  const setAround = useCallback((around: Around) => {
    latest.current.around = around;
  }, []);
  const changes = useMemo(() => {
    const update = (change: (now: Draft, around: Around) => Draft) =>
      setDraft((now) => (latest.current.around ? change(now, latest.current.around) : now));
    return {
      replace: setDraft,
      setName: (name: string) => update((now) => ({ ...now, name })),
      setLight: (light: Draft["light"]) => update((now) => ({ ...now, light })),
      setKind: (kind: LightKind) => update((now, { answer }) => ({ ...now, light: rewritten(kind, answer) })),
      sawAs: (saw: Schemas["Look"]["saw"]) => update((now, { answer }) => looked(now, answer, saw)),
      sayAnew: (said: Schemas["ShotRequest"], cameraId: string) =>
        update((now, { cameras }) =>
          saidAnew(cameraId === now.cameraId ? now : onCamera(now, cameras, cameraId), said),
        ),
      setLook: (look: Draft["look"]) => update((now) => ({ ...now, look })),
      setRig: (rigId: string) => update((now) => unplaced({ ...now, rigId })),
      dropGone: (gone: readonly string[]) => update((now) => without(now, gone)),
      setCamera: (id: string) => update((now, { cameras }) => onCamera(now, cameras, id)),
      setChoices: (choices: Draft["choices"]) => update((now) => unplaced({ ...now, choices })),
      setScene: (part: Partial<Scene>) => update((now) => inScene(now, part)),
      setActivity: (activity: Scene["activity"]) => update((now) => inScene(now, { activity, shakeDegS: undefined })),
      setSchool: (line: Schemas["SchoolLine"]) => update((now) => inSchool(now, line)),
      setShutter: (text: string) => update((now) => atShutter(now, text)),
      pick: (placed: string[]) => update((now) => ({ ...now, placed })),
      toggle: (id: string) => update((now, { answer }) => toggled(now, answer, id)),
      clear: () => update(unplaced),
      dropTried: () => update(asBought),
      trade: ({ does, change }: Schemas["WindowTrade"]) => {
        setMade({ does, before: latest.current.draft });
        update((now) => traded(now, change));
      },
      aim: (change: Record<string, unknown>) => update((now) => traded(now, change)),
      undo: () => {
        if (latest.current.made) setDraft(latest.current.made.before);
        setMade(null);
      },
    };
  }, []);
  return { draft, made, baseVersion: kept?.version ?? shot.version, changes, setAround };
}

/** What was typed on this device and did not reach the server. */
function unsaved(shot: Shot): KeptDraft | null {
  const kept = readDraft(shot.id);
  return kept && canonical(kept.draft) !== canonical(draftOf(shot)) ? kept : null;
}
