import { classes } from "./classes";
import style from "./StateMark.module.css";

export type State = "holds" | "tight" | "breaks" | "unknown";

const SHAPES: Record<State, React.ReactNode> = {
  // A full disc, a half-full diamond, a cross, a dashed ring: told apart without colour.
  holds: <circle cx="8" cy="8" r="7" fill="currentColor" />,
  tight: (
    <>
      <path d="M8 1l7 7-7 7-7-7z" fill="none" stroke="currentColor" strokeWidth="2" />
      <path d="M8 1v14l-7-7z" fill="currentColor" />
    </>
  ),
  breaks: <path d="M2.5 2.5l11 11M13.5 2.5l-11 11" stroke="currentColor" strokeWidth="3.4" strokeLinecap="round" />,
  unknown: <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" strokeWidth="2" strokeDasharray="3 3" />,
};

/** The shape of a verdict, without its word. */
export function StateShape({ state, size = 16 }: { state: State; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" className={style.shape}>
      {SHAPES[state]}
    </svg>
  );
}

/** A verdict by shape, word and colour. */
export function StateMark({ state, children }: { state: State; children?: React.ReactNode }) {
  return (
    <div className={classes(style.mark, style[state])}>
      <StateShape state={state} />
      <b>{state}</b>
      {children && <span>{children}</span>}
    </div>
  );
}
