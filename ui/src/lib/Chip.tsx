import style from "./Chip.module.css";
import { classes } from "./classes";

export interface ChipProps extends React.ComponentProps<"button"> {
  /** Chosen, or open. */
  isOn?: boolean;
  /** What is there without being said. */
  isQuiet?: boolean;
  /** Without a frame: it does something, and is no part of what is shown. */
  isBare?: boolean;
}

/** A small button of which many stand side by side, and that is drawn anew with each answer. */
export function Chip({ isOn, isQuiet, isBare, className, ...button }: ChipProps) {
  const look = classes(style.chip, isOn && style.on, isQuiet && style.quiet, isBare && style.bare, className);
  return <button type="button" className={look} {...button} />;
}
