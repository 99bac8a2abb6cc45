import { classes } from "../lib/classes";
import field from "../lib/field.module.css";
import style from "./LineInput.module.css";

interface LineInputProps extends Omit<React.ComponentProps<"input">, "value" | "onChange"> {
  line: string;
  onLine: (line: string) => void;
  onKeep: () => void;
  isLarge?: boolean;
}

/** One line that says a whole shot; Enter keeps it. */
export function LineInput({ line, onLine, onKeep, onKeyDown, isLarge, ...input }: LineInputProps) {
  return (
    <input
      className={classes(field.input, style.line, isLarge && style.large)}
      value={line}
      autoComplete="off"
      autoCapitalize="off"
      spellCheck={false}
      maxLength={500}
      onChange={(e) => onLine(e.target.value)}
      onKeyDown={(e) => {
        onKeyDown?.(e);
        if (e.key === "Enter") onKeep();
      }}
      {...input}
    />
  );
}

/** Selects a stretch of the line in its field, to be written over. */
export function selectIn(input: HTMLInputElement | null, { start, end }: { start: number; end: number }): void {
  if (!input) return;
  // Fields count in code units, the line in characters.
  const letters = Array.from(input.value);
  const at = (n: number) => letters.slice(0, n).join("").length;
  input.focus();
  input.setSelectionRange(at(start), at(end));
}
