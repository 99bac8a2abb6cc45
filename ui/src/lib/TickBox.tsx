import style from "./field.module.css";

interface TickBoxProps {
  isOn: boolean;
  onChange: (isOn: boolean) => void;
  children: React.ReactNode;
}

/** A box to tick that a cold thumb meets. */
export function TickBox({ isOn, onChange, children }: TickBoxProps) {
  return (
    <label className={style.tick}>
      <input type="checkbox" checked={isOn} onChange={(e) => onChange(e.target.checked)} />
      <span>{children}</span>
    </label>
  );
}
