import { Chip, type ChipProps } from "./Chip";
import style from "./Chip.module.css";
import { classes } from "./classes";

interface PressButtonProps extends ChipProps {
  isOn: boolean;
  /** For a cold thumb: taller, or with large letters, too. */
  size?: "small" | "tall" | "large";
}

/** A button that stays pressed, and looks it. */
export function PressButton({ isOn, size = "small", className, ...button }: PressButtonProps) {
  return (
    <Chip
      aria-pressed={isOn}
      className={classes(style.press, isOn && style.pressed, style[size], className)}
      {...button}
    />
  );
}
