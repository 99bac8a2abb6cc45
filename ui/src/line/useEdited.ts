import { type RefObject, useLayoutEffect, useState } from "react";
import { selectIn } from "./LineInput";
import { type Part, replaced } from "./useLine";

/** A line and the ways to change it by its parts, in a field. */
export function useEdited(input: RefObject<HTMLInputElement | null>) {
  const [line, setLine] = useState("");
  const [selected, select] = useState<{ start: number; end: number }>();
  // What is to be written over can be selected once it stands in the field.
  useLayoutEffect(() => {
    if (!selected) return;
    selectIn(input.current, selected);
    select(undefined);
  }, [selected, input]);
  const replace = (stretch: { start: number; end: number }, text: string) => {
    const next = replaced(line, stretch, text);
    setLine(next);
    const start = next.indexOf(text, Math.max(0, stretch.start - 1));
    const end = Array.from(next.slice(0, start + text.length)).length;
    select({ start: end, end });
  };
  const edit = (part: Part) => {
    if (!part.assumed) return select({ start: part.start, end: part.end });
    // What was assumed is said, so that it can be changed.
    const mark = part.kind === "look" && !line.includes(">") ? " > " : " · ";
    const next = line.trimEnd() + mark + part.text;
    setLine(next);
    const end = Array.from(next).length;
    select({ start: end - Array.from(part.text).length, end });
  };
  return { line, setLine, replace, edit };
}
