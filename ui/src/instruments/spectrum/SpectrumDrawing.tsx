import { Box, Text } from "@chakra-ui/react";
import { scaleLog } from "d3-scale";
import type { Schemas } from "../../api/schemas";
import { decimal } from "../../lib/locale";
import { useWidth } from "../../lib/useWidth";
import { paint } from "../../theme/paint";

type Gyro = Schemas["MeasuredGyroAnswer"];

const HEIGHT = 220;
const EDGE = { left: 44, right: 12, top: 10, bottom: 26 };
const FROM_HZ = 0.5;

/** Shake by frequency, with what a shutter averages away drawn over it. */
export function SpectrumDrawing({ gyro }: { gyro: Gyro }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const { ink, muted, accent, edge, lampInk: lamp } = paint;
  const { spectrum, peaks } = gyro;
  if (!spectrum) return null;
  const top = Math.max(FROM_HZ * 2, gyro.seesUpToHz ?? 100);
  const values = (spectrum.degS2PerHz ?? [])
    .map((v, i) => ({ hz: i * spectrum.stepHz, v, kept: spectrum.kept?.[i] ?? 1 }))
    .filter((p) => p.hz >= FROM_HZ && p.hz <= top);
  const most = Math.max(1e-6, ...values.map((p) => p.v));
  const x = scaleLog([FROM_HZ, top], [EDGE.left, Math.max(EDGE.left + 10, width - EDGE.right)]);
  const y = scaleLog([most / 1e5, most * 1.5], [HEIGHT - EDGE.bottom, EDGE.top]).clamp(true);
  const path = values
    .map((p, i) => `${i ? "L" : "M"}${x(p.hz).toFixed(1)} ${y(Math.max(p.v, most / 1e6)).toFixed(1)}`)
    .join("");
  const height = HEIGHT - EDGE.top - EDGE.bottom;
  const curve = values
    .map(({ hz, kept }, i) => `${i ? "L" : "M"}${x(hz).toFixed(1)} ${(EDGE.top + (1 - kept) * height).toFixed(1)}`)
    .join("");
  const ticks = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].filter((hz) => hz <= top);
  // Of peaks that lie too close for two labels the stronger is marked.
  const apart = peaks
    .slice(0, 6)
    .filter((p, i, all) => !all.slice(0, i).some((stronger) => Math.abs(x(stronger.hz) - x(p.hz)) < 28));
  const words = peaks.slice(0, 4).map((p) => `${decimal(p.hz, 1)} Hz: ${decimal(p.degS, 1)}°/s`);
  return (
    <Box ref={ref} data-testid="spectrum">
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`Shake by frequency. ${words.join(", ") || "No peaks"}`}
        style={{ fontSize: 12 }}
      >
        {ticks.map((hz) => (
          <g key={hz}>
            <line x1={x(hz)} x2={x(hz)} y1={EDGE.top} y2={HEIGHT - EDGE.bottom} stroke={edge} />
            <text x={x(hz)} y={HEIGHT - 8} textAnchor="middle" fill={muted}>
              {hz}
            </text>
          </g>
        ))}
        <text x={EDGE.left} y={HEIGHT - 8} textAnchor="end" fill={muted}>
          Hz
        </text>
        <path d={path} fill="none" stroke={ink} strokeWidth={1.5} />
        <path d={curve} fill="none" stroke={accent} strokeWidth={2} strokeDasharray="6 4" />
        {apart.map((p) => (
          <g key={p.hz}>
            <line x1={x(p.hz)} x2={x(p.hz)} y1={EDGE.top} y2={EDGE.top + 14} stroke={lamp} strokeWidth={3} />
            <text x={x(p.hz) + 4} y={EDGE.top + 12} fill={lamp} fontWeight="bold">
              {decimal(p.hz, 0)}
            </text>
          </g>
        ))}
      </svg>
      <Text fontSize="sm" color="muted">
        Dashed: what is left of a vibration within one exposure, from all (top) to none
      </Text>
    </Box>
  );
}
