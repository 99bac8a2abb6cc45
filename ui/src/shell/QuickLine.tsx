import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { useLocation, useMatch } from "react-router";
import { camerasQuery, shotQuery } from "../api/queries";
import { Chip } from "../lib/Chip";
import { useHandedOver } from "../lib/handOver";
import { useHotkeys } from "../lib/useHotkeys";
import { whenQuiet } from "../lib/whenQuiet";
import { LineAnswer } from "../line/LineAnswer";
import told from "../line/LineAnswer.module.css";
import { LineInput } from "../line/LineInput";
import { useEdited } from "../line/useEdited";
import { useKeep, useLine } from "../line/useLine";
import style from "./Shell.module.css";

/**
 * One line that asks a whole shot, wherever one is: f2 1/1250 iso50 > 50 fps. The answer
 * stands under it while it is typed, on the camera of the open shot or the one that was
 * worked on last; Enter makes it a shot.
 */
export function QuickLine() {
  const [isOpen, setOpen] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const { line, setLine, replace, edit } = useEdited(input);
  const id = useMatch("/shot/:id")?.params.id ?? "";
  const { data: shot } = useQuery({ ...shotQuery(id), enabled: id !== "" });
  // A device keeps what a line needs for when its server is gone, but the page comes first.
  const [isQuiet, setQuiet] = useState(false);
  useEffect(() => whenQuiet(() => setQuiet(true)), []);
  const { answer, error, isCurrent } = useLine(line, shot?.cameraId, isQuiet || isOpen);
  const keep = useKeep(() => {
    setLine("");
    setOpen(false);
    input.current?.blur();
  }, shot?.cameraId);
  useHotkeys(
    useCallback((key) => {
      if (key !== "/") return false;
      input.current?.focus();
      return true;
    }, []),
  );
  const { data: cameras } = useQuery(camerasQuery);
  const { pathname } = useLocation();
  // The first page is a line itself.
  const isAside = cameras?.length === 0 && pathname === "/shoot";
  useHandedOver(isAside ? undefined : "line", async (file) => {
    setLine((await file.text()).trim());
    input.current?.focus();
  });
  if (isAside) return <div className={style.space} />;
  // A hand that is faster than the answer is not made to wait: the server answers what it keeps.
  const canKeep = line.trim() !== "" && !(isCurrent && answer?.needStops === undefined) && !keep.isPending;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: it closes what its own parts have opened
    <div className={style.quick} onBlur={(e) => e.currentTarget.contains(e.relatedTarget) || setOpen(false)}>
      <kbd aria-hidden>/</kbd>
      <LineInput
        ref={input}
        aria-label="Quick line: the light, the look, what moves, the filters"
        aria-describedby="quick-answer"
        placeholder="f2 1/1250 iso50 > 50 fps"
        line={line}
        onLine={(text) => {
          setLine(text);
          setOpen(true);
        }}
        onFocus={() => setOpen(true)}
        onKeyDown={(e) => e.key === "Escape" && e.currentTarget.blur()}
        onKeep={() => canKeep && keep.mutate(line)}
      />
      <div
        id="quick-answer"
        className={style.told}
        hidden={!isOpen || line.trim() === ""}
        aria-live="polite"
        data-testid="quick-answer"
      >
        {error && <p className={told.quiet}>{error.message}</p>}
        {!error && answer && (
          <>
            <LineAnswer answer={answer} onReplace={replace} onEdit={edit} />
            {answer.needStops !== undefined && (
              <div className={told.keep}>
                <Chip isMain disabled={!canKeep} onClick={() => keep.mutate(line)}>
                  Make it a shot
                </Chip>
                <p className={told.keys}>
                  or press Enter{answer.missing && `: adds ${answer.missing.join(", ")} to the kit`}
                </p>
              </div>
            )}
          </>
        )}
      </div>
    </div>
  );
}
