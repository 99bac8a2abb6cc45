import { Input, type InputProps } from "@chakra-ui/react";

interface LineInputProps extends Omit<InputProps, "value" | "onChange"> {
  line: string;
  onLine: (line: string) => void;
  onKeep: () => void;
  ref?: React.Ref<HTMLInputElement>;
}

/** One line that says a whole shot; Enter keeps it. */
export function LineInput({ line, onLine, onKeep, onKeyDown, ...input }: LineInputProps) {
  return (
    <Input
      value={line}
      bg="panel"
      borderColor="edge"
      _placeholder={{ color: "muted" }}
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
