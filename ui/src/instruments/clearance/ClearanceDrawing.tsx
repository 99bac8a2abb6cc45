import { Box, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { decimal } from "../../lib/locale";
import { useWidth } from "../../lib/useWidth";
import { paint } from "../../theme/paint";

type Fit = Schemas["FitAnswer"];

interface ClearanceDrawingProps {
  fit: Fit;
  barrelMm: readonly number[];
  seatMm: readonly number[];
}

const ROW = 26;
const LEFT = 66;
/** How far beyond the range the scale goes, in millimetres. */
const MARGIN = 0.06;

const GROUNDS: Record<Fit["bands"][number]["class"], string> = {
  "too tight": paint.breaksSoft,
  tight: paint.tightSoft,
  snug: paint.holdsSoft,
  loose: paint.tightSoft,
  "falls off": paint.breaksSoft,
};

/**
 * Barrel and ring with their tolerances on one scale of diameters, and below them
 * the clearance that follows, over the classes. All to scale; the gauge's error is
 * the thin part of each bar.
 */
export function ClearanceDrawing({ fit, barrelMm, seatMm }: ClearanceDrawingProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const { ink, muted, edge, accent } = paint;
  const soft = fit.bands.map((b) => GROUNDS[b.class]);
  const [b0 = 0, b1 = 0] = barrelMm;
  const [s0 = 0, s1 = 0] = seatMm;
  const [c0 = 0, c1 = 0] = fit.clearanceMm;
  const room = Math.max(1, width - LEFT - 8);
  // One millimetre is as long in both scales, so that the overlap is the clearance.
  const span = Math.max(Math.max(b1, s1) - Math.min(b0, s0) + 2 * fit.gaugeMm, c1 - c0, 0.35) + 2 * MARGIN;
  const px = (mm: number) => (mm / span) * room;
  const middle = (Math.min(b0, s0) + Math.max(b1, s1)) / 2;
  const atDiameter = (mm: number) => LEFT + room / 2 + px(mm - middle);
  const atClearance = (mm: number) => LEFT + room / 2 + px(mm - (c0 + c1) / 2);
  const words = `Barrel ${b0} to ${b1} mm, ring ${s0} to ${s1} mm, each measured to ${fit.gaugeMm} mm: clearance ${decimal(c0, 2)} to ${decimal(c1, 2)} mm, ${fit.class} by the middle, ${fit.worst} at worst.`;
  const bar = (y: number, from: number, to: number, at: (mm: number) => number, name: string) => (
    <>
      <text x={LEFT - 8} y={y + 5} textAnchor="end" fontSize="13" fill={muted}>
        {name}
      </text>
      <rect x={at(from)} y={y - 2} width={Math.max(1, at(to) - at(from))} height={4} fill={ink} />
      <rect
        x={at(from + fit.gaugeMm)}
        y={y - 7}
        width={Math.max(2, at(to - fit.gaugeMm) - at(from + fit.gaugeMm))}
        height={14}
        fill={ink}
      />
    </>
  );
  return (
    <Box ref={ref} data-testid="clearance">
      {width > 0 && (
        <svg width={width} height={ROW * 4 + 22} role="img" aria-label={words}>
          {bar(ROW * 0.6, b0 - fit.gaugeMm, b1 + fit.gaugeMm, atDiameter, "barrel")}
          {bar(ROW * 1.6, s0 - fit.gaugeMm, s1 + fit.gaugeMm, atDiameter, "ring")}
          {fit.bands.map((band, i) => {
            const from = Math.max(LEFT, band.fromMm === null ? LEFT : atClearance(band.fromMm));
            const to = Math.min(width - 8, band.toMm === null ? width - 8 : atClearance(band.toMm));
            if (to <= from) return null;
            return (
              <g key={band.class}>
                <rect x={from} y={ROW * 2.3} width={to - from} height={ROW * 1.7} fill={soft[i]} stroke={edge} />
                {to - from > 46 && (
                  <text x={(from + to) / 2} y={ROW * 2.3 + 14} textAnchor="middle" fontSize="12" fill={ink}>
                    {band.class}
                  </text>
                )}
              </g>
            );
          })}
          <text x={LEFT - 8} y={ROW * 3.6} textAnchor="end" fontSize="13" fill={muted}>
            play
          </text>
          <rect
            x={atClearance(c0)}
            y={ROW * 3.35}
            width={Math.max(2, atClearance(c1) - atClearance(c0))}
            height={8}
            fill={accent}
          />
          <path d={`M${atClearance((c0 + c1) / 2)} ${ROW * 3.35 - 5}v18`} stroke={accent} strokeWidth="2" />
          {[c0, c1].map((mm, i) => (
            <text
              key={mm}
              x={atClearance(mm)}
              y={ROW * 4 + 16}
              fontSize="12"
              textAnchor={i === 0 ? "end" : "start"}
              fill={muted}
            >
              {decimal(mm, 2)}
            </text>
          ))}
        </svg>
      )}
      <Text fontSize="sm" color="muted">
        {words}
      </Text>
      {fit.settle && <Text>To settle it: {fit.settle}.</Text>}
    </Box>
  );
}
