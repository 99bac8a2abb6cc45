import { ChevronRight } from "lucide-react";
import { useState } from "react";
import { classes } from "./classes";
import style from "./Drawer.module.css";

interface DrawerProps {
  heading: string;
  /** What it comes to, in a few words: read without opening it. */
  result?: React.ReactNode;
  children: React.ReactNode;
  /** Within a panel, without a frame of its own. */
  isPlain?: boolean;
}

/** A part of a place that stays closed until it is wanted, headed by its result. */
export function Drawer({ heading, result, children, isPlain }: DrawerProps) {
  // What is in it is drawn when it is opened first, and stays as it is left.
  const [wasOpened, setOpened] = useState(false);
  return (
    <details
      aria-label={heading}
      className={classes(style.drawer, !isPlain && style.framed)}
      onToggle={() => setOpened(true)}
    >
      <summary>
        <ChevronRight size={18} aria-hidden />
        <span className={style.words}>
          <b>{heading}</b>
          {result && <span>{result}</span>}
        </span>
      </summary>
      <div className={style.body}>{wasOpened && children}</div>
    </details>
  );
}
