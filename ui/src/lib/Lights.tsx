import type { Schemas } from "../api/schemas";
import { classes } from "./classes";
import style from "./Lights.module.css";
import { decimal } from "./locale";

type Light = Schemas["LightFor"];

/** "EV 11.3 to 11.6 ±0.3" */
export function evWords({ lowEv100: low, highEv100: high, spreadStops }: Omit<Light, "kind">): string {
  const [least, most] = [decimal(low, 1), decimal(high, 1)];
  const range = least === most ? most : `${least} to ${most}`;
  return `EV ${range} ±${decimal(spreadStops, 1)}`;
}

/** Every light that is known of a shot, side by side: the one that its answer is for first, in bold. */
export function Lights({ lights, size = "sm" }: { lights: readonly Light[]; size?: "sm" | "md" | "lg" }) {
  return (
    <ul className={classes(style.lights, style[size])} data-testid="lights" aria-label="Light that is known">
      {lights.map((l) => (
        <li key={l.kind} className={l.isUsed ? style.used : undefined}>
          <span>{evWords(l)}</span>, {l.words}
        </li>
      ))}
    </ul>
  );
}
