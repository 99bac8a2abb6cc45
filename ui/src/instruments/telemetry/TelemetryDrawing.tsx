import { Box } from "@chakra-ui/react";
import { scaleLinear, scaleLog } from "d3-scale";
import type { Schemas } from "../../api/schemas";
import { shutterText } from "../../lib/measured";
import { useWidth } from "../../lib/useWidth";
import { paint } from "../../theme/paint";

type Telemetry = Schemas["MeasuredTelemetryAnswer"];

const HEIGHT = 200;
const EDGE = { left: 64, right: 12, top: 10, bottom: 26 };

/** The shutter over time against its target, with the stretches away from it. */
export function TelemetryDrawing({ log }: { log: Telemetry }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const { ink, muted, accent, edge, breaksSoft: soft } = paint;
  const { samples, shutter, withinS, excursions, fromS, toS } = log;
  const [shortest, longest] = withinS ?? [];
  if (!shutter) return null;
  const ends = [shutter.fastestS, shutter.slowestS, ...(withinS ?? [])];
  const x = scaleLinear([fromS, toS], [EDGE.left, Math.max(EDGE.left + 10, width - EDGE.right)]);
  const y = scaleLog([Math.max(...ends) * 1.3, Math.min(...ends) / 1.3], [HEIGHT - EDGE.bottom, EDGE.top]);
  const line = samples.map((s, i) => `${i ? "L" : "M"}${x(s.t).toFixed(1)} ${y(s.shutterS).toFixed(1)}`).join("");
  const away = excursions.filter((e) => e.kind === "shutter");
  const marks = [shutter.fastestS, shutter.slowestS].filter((t, i, all) => all.indexOf(t) === i);
  return (
    <Box ref={ref} data-testid="telemetry-drawing">
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`Shutter over ${Math.round(toS - fromS)} seconds, ${away.length} stretches away from the target`}
        style={{ fontSize: 12 }}
      >
        {away.map((e) => (
          <rect
            key={e.fromS}
            x={x(e.fromS)}
            y={EDGE.top}
            width={Math.max(1, x(e.toS) - x(e.fromS))}
            height={HEIGHT - EDGE.top - EDGE.bottom}
            fill={soft}
          />
        ))}
        {shortest && longest && (
          <rect
            x={EDGE.left}
            width={Math.max(0, width - EDGE.left - EDGE.right)}
            y={y(shortest)}
            height={Math.max(1, y(longest) - y(shortest))}
            fill={accent}
            opacity={0.25}
          />
        )}
        {marks.map((t) => (
          <text key={t} x={EDGE.left - 6} y={y(t) + 4} textAnchor="end" fill={muted}>
            {shutterText(t)}
          </text>
        ))}
        <path d={`M${EDGE.left} ${EDGE.top}V${HEIGHT - EDGE.bottom}H${width - EDGE.right}`} fill="none" stroke={edge} />
        <path d={line} fill="none" stroke={ink} strokeWidth={1.8} />
        {x.ticks(6).map((t) => (
          <text key={t} x={x(t)} y={HEIGHT - 8} textAnchor="middle" fill={muted}>
            {t} s
          </text>
        ))}
      </svg>
    </Box>
  );
}
