import { paint } from "../../theme/paint";

interface CompassProps {
  sunDeg: number;
  cameraDeg: number;
  hfovDeg: number;
  words: string;
}

const SIZE = 130;
const C = SIZE / 2;
const R = 46;

const at = (deg: number, r: number): [number, number] => {
  const rad = (deg * Math.PI) / 180;
  return [C + r * Math.sin(rad), C - r * Math.cos(rad)];
};

/** North up: the camera's view as a wedge, the sun, and the band across the sky that a polariser darkens most. */
export function Compass({ sunDeg, cameraDeg, hfovDeg, words }: CompassProps) {
  const { ink, edge, lamp, accentSoft, accent, muted } = paint;
  const half = Math.min(hfovDeg, 178) / 2;
  const [ax, ay] = at(cameraDeg - half, R);
  const [bx, by] = at(cameraDeg + half, R);
  const [sx, sy] = at(sunDeg, R);
  const [px, py] = at(sunDeg + 90, R);
  const [qx, qy] = at(sunDeg - 90, R);
  return (
    <svg width={SIZE} height={SIZE} role="img" aria-label={words}>
      <circle cx={C} cy={C} r={R} fill="none" stroke={edge} strokeWidth="2" />
      <path d={`M${C} ${C}L${ax} ${ay}A${R} ${R} 0 0 1 ${bx} ${by}Z`} fill={accentSoft} stroke={accent} />
      <path d={`M${px} ${py}L${qx} ${qy}`} stroke={muted} strokeDasharray="4 4" />
      <circle cx={sx} cy={sy} r="8" fill={lamp} stroke={ink} />
      {(["N", "E", "S", "W"] as const).map((name, i) => {
        const [x, y] = at(i * 90, R + 13);
        return (
          <text key={name} x={x} y={y + 4} textAnchor="middle" fontSize="12" fill={ink}>
            {name}
          </text>
        );
      })}
    </svg>
  );
}
