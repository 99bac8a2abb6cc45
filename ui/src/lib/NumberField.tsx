import { useCallback, useEffect, useState } from "react";
import { localNumber, readNumber, withoutUnit } from "./locale";
import { TextField } from "./TextField";
import { type Quantity, significant, useUnits } from "./units";

interface NumberFieldProps {
  label: string;
  value: number | undefined;
  /** A number, or undefined for an empty field. */
  onChange: (value: number | undefined) => void;
  fault?: string | undefined;
  helper?: string | undefined;
  w?: string;
  /** What it measures, where it is typed in the unit that was chosen: the label gets that unit. */
  quantity?: Quantity;
}

/** Reads what is typed in a field; nothing is no number, and what is none is unreadable. */
const readIn = (label: string, text: string): number | undefined | "unreadable" =>
  text.trim() === "" ? undefined : (readNumber(withoutUnit(text, label)) ?? "unreadable");

/** A labelled field for a number with its unit in the label, and behind the number if it is typed; empty means not given. */
export function NumberField({ label: name, value, onChange, fault, helper, quantity, w = "120px" }: NumberFieldProps) {
  const units = useUnits();
  const unit = quantity && units[quantity];
  const of = unit?.of ?? 1;
  const label = unit ? `${name}, ${unit.name}` : name;
  const read = useCallback((typed: string) => readIn(label, typed), [label]);
  const asText = useCallback(
    (v: number | undefined) => (v === undefined ? "" : localNumber(of === 1 ? String(v) : significant(v / of, 4))),
    [of],
  );
  const [text, setText] = useState(asText(value));
  const now = read(text);
  // What comes from outside replaces what was typed, unless it is the same number.
  useEffect(() => {
    setText((typed) => {
      const was = read(typed);
      return was === value || (typeof was === "number" && was * of === value) ? typed : asText(value);
    });
  }, [value, asText, of, read]);
  return (
    <TextField
      label={label}
      inputMode="decimal"
      value={text}
      w={w}
      fault={now === "unreadable" ? "write a number" : fault}
      helper={helper}
      onChange={(typed) => {
        setText(typed);
        const next = read(typed);
        if (next !== "unreadable") onChange(next === undefined ? undefined : next * of);
      }}
    />
  );
}
