import style from "./Chip.module.css";
import { classes } from "./classes";

export interface ChipProps extends Omit<React.ComponentProps<"button">, "className"> {
  className?: string | false | undefined;
  /** Chosen, or open. */
  isOn?: boolean;
  /** What is there without being said. */
  isQuiet?: boolean | undefined;
  /** Without a frame: it does something, and is no part of what is shown. */
  isBare?: boolean;
  /** What is done next. */
  isMain?: boolean;
}

/** A small button of which many stand side by side, and that is drawn anew with each answer. */
export function Chip({ isOn, isQuiet, isBare, isMain, className, ...button }: ChipProps) {
  const look = classes(
    style.chip,
    isOn && style.on,
    isQuiet && style.quiet,
    isBare && style.bare,
    isMain && style.main,
    className,
  );
  return <button type="button" className={look} {...button} />;
}
