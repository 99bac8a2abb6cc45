import { useQuery } from "@tanstack/react-query";
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { askableQuery, askQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { useComputed } from "../../api/useComputed";
import style from "../../line/LineAnswer.module.css";
import { LineInput, selectIn } from "../../line/LineInput";
import { Unread } from "../../line/Unread";
import { replaced } from "../../line/useLine";
import type { Draft } from "./draft";

export type Stretch = { start: number; end: number };

interface LineEditorProps {
  draft: Draft;
  line: string;
  stretch: Stretch;
  onEnd: () => void;
  /** The shot is what the line says now, on the camera of that id. */
  onSay: (said: Schemas["ShotRequest"], cameraId: string) => void;
}

/** The shot's line as text; Enter takes what it says. */
export function LineEditor({ draft, line: before, stretch, onEnd, onSay }: LineEditorProps) {
  const input = useRef<HTMLInputElement>(null);
  const [line, setLine] = useState(before);
  const { data: cameras } = useQuery(askableQuery);
  const { look, scene = {}, choices, cameraId } = draft;
  const request = useMemo(() => {
    if (!cameras || line.trim() === "") return null;
    const mine = cameras
      .filter((c) => c.held.cameraId === cameraId)
      .map((c) => ({ ...c, last: { look, scene, choices } }));
    return {
      line,
      cameras: [...mine, ...cameras.filter((c) => c.held.cameraId !== cameraId)],
      whole: true,
      anew: true,
    };
  }, [line, cameras, cameraId, look, scene, choices]);
  const { data: answer, isPlaceholderData } = useComputed(askQuery(request));
  useLayoutEffect(() => selectIn(input.current, stretch), [stretch]);
  // A hand that is faster than the answer is not made to wait: what it took is done when that is there.
  const [isTaken, setTaken] = useState(false);
  // A line of which nothing could be read takes nothing away from the shot.
  const isRead = answer?.parts.some((part) => !part.assumed);
  const said = isPlaceholderData || !isRead ? undefined : answer?.request;
  const camera = cameras?.find((c) => c.name === answer?.camera);
  useEffect(() => {
    if (!isTaken || !said || !camera) return;
    setTaken(false);
    onSay(said, camera.held.cameraId);
  }, [isTaken, said, camera, onSay]);
  return (
    <div className={style.editor}>
      <LineInput
        ref={input}
        aria-label="The shot in one line"
        line={line}
        onLine={(text) => {
          setLine(text);
          setTaken(false);
        }}
        onKeep={() => (line === before ? onEnd() : setTaken(true))}
        onKeyDown={(e) => {
          if (e.key === "Escape") onEnd();
        }}
      />
      {answer && (
        <div className={style.words} aria-live="polite">
          <p className={style.quiet} data-testid="line-words">
            {isRead ? answer.words : "Nothing of this could be read"}
            {line !== before && isRead && ". Enter takes it, Escape leaves the shot as it is."}
            {!isRead && ". Escape leaves the shot as it is."}
          </p>
          {answer.missing && (
            <p className={style.quiet} data-testid="line-missing">
              Left out, as {answer.camera} has none: {answer.missing.join(", ")}
            </p>
          )}
          {answer.unread.map((unread) => (
            <Unread key={unread.start} unread={unread} onReplace={(text) => setLine(replaced(line, unread, text))} />
          ))}
        </div>
      )}
    </div>
  );
}
