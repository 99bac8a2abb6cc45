import hidden from "./aloud.module.css";
import { classes } from "./classes";
import style from "./Panel.module.css";

interface PanelProps extends React.ComponentProps<"section"> {
  heading: string;
  /** One quiet line beside the heading. */
  note?: React.ReactNode;
  /** Where room is short: a small heading and narrow edges. */
  isDense?: boolean;
  /** For a part whose first words say what it is: the heading is only read aloud. */
  isHeadingHidden?: boolean;
}

/** A titled part of a place. */
export function Panel({ heading, note, isDense, isHeadingHidden, className, children, ...section }: PanelProps) {
  return (
    <section aria-label={heading} className={classes(style.panel, isDense && style.dense, className)} {...section}>
      <div className={isHeadingHidden ? hidden.aloud : style.head}>
        <h2>{heading}</h2>
        {note && <p>{note}</p>}
      </div>
      {children}
    </section>
  );
}
