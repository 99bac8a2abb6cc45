import style from "./field.module.css";
import { PressButton } from "./PressButton";

interface ChoiceProps<T extends string> {
  label: string;
  options: readonly { value: T; name: string }[];
  value: T | undefined;
  onChange: (value: T) => void;
}

/** A few alternatives side by side, one of them pressed. */
export function Choice<T extends string>({ label, options, value, onChange }: ChoiceProps<T>) {
  return (
    <div className={style.field} role="group" aria-label={label}>
      <span className={style.label}>{label}</span>
      <div className={style.choices}>
        {options.map((option) => (
          <PressButton key={option.value} isOn={option.value === value} onClick={() => onChange(option.value)}>
            {option.name}
          </PressButton>
        ))}
      </div>
    </div>
  );
}
