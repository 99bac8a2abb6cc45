import { Box, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { decimal } from "../../lib/locale";
import { useWidth } from "../../lib/useWidth";
import { paint } from "../../theme/paint";

type Corners = Schemas["CornersAnswer"];

const HEIGHT = 210;
/** Room below the axis, which the picture mirrors, for the lower edge of the pupil. */
const BELOW = 26;

interface CornersDrawingProps {
  corners: Corners;
  /** Outer diameters of the rings, where they are known. */
  outerMm: readonly (number | undefined)[];
}

/**
 * The upper half of the rings before the lens from the side, to scale: the pupil at
 * the left on the axis, each ring's rim above it, and the beam from the corner of the
 * frame, which is cut where it meets a rim.
 */
export function CornersDrawing({ corners, outerMm }: CornersDrawingProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const { ink, muted, edge, lamp, breaks } = paint;
  const rings = corners.rings.map((r, i) => ({ ...r, outerMm: outerMm[i] ?? r.clearMm + 3 }));
  const half = corners.pupilMm / 2;
  const end = Math.max(...rings.map((r) => r.zMm), 1) * 1.5 + 1;
  const top = Math.max(...rings.map((r) => r.outerMm / 2), half) * 1.05;
  const scale = Math.min((HEIGHT - BELOW - 6) / top, Math.max(1, width - 300) / end);
  const left = Math.max(60, (width - end * scale - 240) / 2);
  const x = (mm: number) => left + mm * scale;
  const y = (mm: number) => HEIGHT - BELOW - mm * scale;
  /** A ray at so many degrees from a height on the pupil, to the end or the top of the drawing. */
  const ray = (deg: number, from: number) => {
    const slope = Math.tan((deg * Math.PI) / 180);
    const z = Math.min(end, (top - from) / slope);
    return `M${x(0)} ${y(from)}L${x(z)} ${y(from + z * slope)}`;
  };
  const isCut = corners.lossStops === null || corners.lossStops > 0.05;
  const words = wordsOf(corners);
  return (
    <Box ref={ref} data-testid="corners">
      {width > 0 && (
        <svg width={width} height={HEIGHT} role="img" aria-label={words}>
          <path d={`M10 ${y(0)}H${width - 10}`} stroke={edge} strokeDasharray="6 4" />
          <path d={ray(corners.cleanHalfDeg, half)} stroke={muted} strokeDasharray="3 4" />
          <path
            d={ray(corners.halfDiagonalDeg, half) + ray(corners.halfDiagonalDeg, -half)}
            stroke={lamp}
            strokeWidth="2.5"
          />
          <path d={`M${x(0)} ${y(half)}V${y(-half)}`} stroke={ink} strokeWidth="5" />
          {rings.map((r) => (
            <path
              key={r.zMm}
              d={`M${x(r.zMm)} ${y(r.clearMm / 2)}V${y(r.outerMm / 2)}`}
              stroke={isCut ? breaks : ink}
              strokeWidth="6"
            />
          ))}
          <text x={x(0) - 10} y={y(0) - 4} fontSize="13" fill={muted} textAnchor="end">
            pupil
          </text>
          {rings.map((r, i) => (
            <text key={r.zMm} x={x(end) + 12} y={y(top) + 14 + 16 * i} fontSize="13" fill={muted}>
              {r.clearMm} mm clear, {decimal(r.zMm, 1)} mm before the pupil
            </text>
          ))}
        </svg>
      )}
      <Text>{words}</Text>
    </Box>
  );
}

function wordsOf({ lossStops, cleanHalfDeg, halfDiagonalDeg, nearer, further }: Corners): string {
  const lost = (s: number | null) => (s === null ? "all light" : `${decimal(Math.abs(s), 2)} stops`);
  const clean =
    cleanHalfDeg >= halfDiagonalDeg
      ? `The corner, ${decimal(halfDiagonalDeg, 0)}° off the axis, is clean`
      : `The corner, ${decimal(halfDiagonalDeg, 0)}° off the axis, loses ${lost(lossStops)}`;
  return `${clean}; all light passes to ${decimal(cleanHalfDeg, 0)}°. With the pupil 0.2 mm nearer or further it loses ${lost(nearer.lossStops)} or ${lost(further.lossStops)}.`;
}
