import { ChevronDown } from "lucide-react";
import { useId } from "react";
import hidden from "./aloud.module.css";
import { classes } from "./classes";
import style from "./field.module.css";

interface SelectFieldProps {
  label: string;
  value: string;
  options: readonly { value: string; name: string }[];
  onChange: (value: string) => void;
  /** For lists whose place says what they are: the label is only read aloud. */
  isLabelHidden?: boolean;
  /** The label stands beside the list. */
  isBeside?: boolean;
  /** Width of the list itself; all there is by default. */
  w?: string;
  maxW?: string;
  /** As much as is left in its row, of so much at least. */
  flex?: string;
  minW?: string;
}

/** A labelled list to choose one of. */
export function SelectField(props: SelectFieldProps) {
  const { label, value, options, onChange, isLabelHidden, isBeside, w, maxW, flex, minW } = props;
  const id = useId();
  return (
    <div
      className={classes(style.field, isBeside && style.beside)}
      style={{ width: isBeside ? undefined : "100%", maxWidth: maxW, minWidth: minW, flex }}
    >
      <label htmlFor={id} className={isLabelHidden ? hidden.aloud : undefined}>
        {label}
      </label>
      <div className={style.list} style={{ width: w }}>
        <select id={id} className={style.input} value={value} onChange={(e) => onChange(e.target.value)}>
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.name}
            </option>
          ))}
        </select>
        <ChevronDown size={16} aria-hidden />
      </div>
    </div>
  );
}
