import { classes } from "./classes";
import style from "./PictureButton.module.css";

interface PictureButtonProps extends React.ComponentProps<"button"> {
  "aria-label": string;
  isQuiet?: boolean;
  /** Left out on a phone. */
  isForDesk?: boolean;
}

/** A button that is a picture with a name. */
export const PictureButton = ({ isQuiet, isForDesk, ...button }: PictureButtonProps) => (
  <button
    type="button"
    className={classes(style.button, isQuiet && style.quiet, isForDesk && style.desk)}
    {...button}
  />
);
