import { Box, Text, useToken } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";
import type { Schemas } from "../../api/client";

const W = 220;
const H = 120;
const EDGE = 18;

/** The stick's curve, and how far it may go before the turn smears. */
export function StickCurve({ answer, shutter }: { answer: Schemas["RatesAnswer"]; shutter: string }) {
  const [ink, muted, accent, breaks] = useToken("colors", ["ink", "muted", "accent", "breaks"]);
  const most = Math.max(1, ...answer.curve.map((p) => p.rateDegS));
  const x = scaleLinear([0, 1], [EDGE, W - 4]);
  const y = scaleLinear([0, most], [H - EDGE, 6]);
  const points = answer.curve.map((p) => `${x(p.stick)},${y(p.rateDegS)}`).join(" ");
  const { heavyStick, heavyDegS } = answer;
  const words = wordsOf(answer, shutter);
  return (
    <Box>
      <svg width={W} height={H} role="img" aria-label={words} style={{ fontSize: 12 }}>
        {heavyStick !== undefined && heavyStick < 1 && (
          <rect
            x={x(heavyStick)}
            y={6}
            width={x(1) - x(heavyStick)}
            height={H - EDGE - 6}
            fill={breaks}
            opacity={0.15}
          />
        )}
        <path d={`M${EDGE} 6V${H - EDGE}H${W - 4}`} fill="none" stroke={ink} />
        <polyline points={points} fill="none" stroke={accent} strokeWidth={2.5} />
        {heavyStick !== undefined && heavyDegS !== undefined && (
          <circle cx={x(heavyStick)} cy={y(heavyDegS)} r={5} fill={accent} />
        )}
        <text x={W - 4} y={H - 4} textAnchor="end" fill={muted}>
          stick
        </text>
        <text x={EDGE + 4} y={16} fill={muted}>
          {Math.round(most)}°/s
        </text>
      </svg>
      <Text fontSize="sm">{words}</Text>
    </Box>
  );
}

function wordsOf({ heavyStick, heavyDegS }: Schemas["RatesAnswer"], shutter: string): string {
  if (heavyStick === undefined || heavyDegS === undefined)
    return "How far the stick may go needs the camera's field of view.";
  if (heavyStick >= 1) return `At ${shutter} even full stick does not smear.`;
  return `At ${shutter} the turn smears beyond ${Math.round(heavyStick * 100)} % of stick, ${Math.round(heavyDegS)}°/s.`;
}
