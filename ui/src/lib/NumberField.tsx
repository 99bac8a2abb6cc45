import { useEffect, useState } from "react";
import { TextField } from "./TextField";

interface NumberFieldProps {
  label: string;
  value: number | undefined;
  /** A number, or undefined for an empty field. */
  onChange: (value: number | undefined) => void;
  fault?: string | undefined;
  helper?: string | undefined;
  w?: string;
}

const asText = (value: number | undefined): string => (value === undefined ? "" : String(value));

/** Reads what is typed: a decimal comma is as good as a point, and so is a true minus. */
function read(text: string): number | undefined | "unreadable" {
  const plain = text.trim().replace(",", ".").replace("−", "-");
  if (plain === "") return undefined;
  const value = Number(plain);
  return Number.isFinite(value) ? value : "unreadable";
}

/** A labelled field for a number with its unit in the label; empty means not given. */
export function NumberField({ label, value, onChange, fault, helper, w = "120px" }: NumberFieldProps) {
  const [text, setText] = useState(asText(value));
  const now = read(text);
  // What comes from outside replaces what was typed, unless it is the same number.
  useEffect(() => {
    setText((typed) => (read(typed) === value ? typed : asText(value)));
  }, [value]);
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
        if (next !== "unreadable") onChange(next);
      }}
    />
  );
}
