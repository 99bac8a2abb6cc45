import { useId } from "react";
import { classes } from "./classes";
import style from "./field.module.css";

interface TextFieldProps extends Omit<React.ComponentProps<"input">, "onChange" | "value" | "id"> {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** What is wrong with the value, in words. */
  fault?: string | undefined;
  helper?: string | undefined;
  /** Width of the field; all there is by default. */
  w?: string;
  /** For the one thing that a place asks. */
  isLarge?: boolean;
}

/** A labelled text field that shows its fault beneath. */
export function TextField({ label, value, onChange, fault, helper, w = "100%", isLarge, ...input }: TextFieldProps) {
  const id = useId();
  const isSaid = fault || helper;
  return (
    <div className={style.field} style={{ width: w }}>
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        className={classes(style.input, isLarge && style.large)}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        aria-invalid={fault ? true : undefined}
        aria-describedby={isSaid ? `${id}-said` : undefined}
        autoComplete="off"
        autoCapitalize="off"
        spellCheck={false}
        {...input}
      />
      {isSaid && (
        <p id={`${id}-said`} className={fault ? style.fault : style.helper} aria-live={fault ? "polite" : undefined}>
          {isSaid}
        </p>
      )}
    </div>
  );
}
