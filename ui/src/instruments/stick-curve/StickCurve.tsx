import { Box, Text } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";
import type { Schemas } from "../../api/schemas";
import { paint } from "../../theme/paint";

const W = 220;
const H = 120;
const EDGE = 18;

type Rates = Schemas["RatesAnswer"];

const NAMES: Record<Schemas["AxisStick"]["axis"], string> = { pan: "Pan", pitch: "Pitch", roll: "Roll" };

/** A stick's curve about one axis, how far it may go before a pan has excess blur, and other rates laid over it. */
export function StickCurve({ stick }: { stick: Schemas["AxisStick"] }) {
  const { axis, rates, compared, shutter } = stick;
  const { ink, muted, accent, breaks } = paint;
  const all = compared ? [...rates.curve, ...compared.curve] : rates.curve;
  const most = Math.max(1, ...all.map((p) => p.rateDegS));
  const x = scaleLinear([0, 1], [EDGE, W - 4]);
  const y = scaleLinear([0, most], [H - EDGE, 6]);
  const points = ({ curve }: Rates) => curve.map((p) => `${x(p.stick)},${y(p.rateDegS)}`).join(" ");
  const { heavyStick, heavyDegS } = rates;
  const words = [wordsOf(rates, shutter), ...(compared ? [`Dashed: ${comparedWords(compared, shutter)}`] : [])];
  return (
    <Box maxW={`${W + 20}px`}>
      <Text fontSize="sm" fontWeight="bold">
        {NAMES[axis]}
      </Text>
      <svg
        width={W}
        height={H}
        role="img"
        aria-label={`${NAMES[axis]}: ${words.join(" ")}`}
        style={{ fontSize: 12 }}
        data-testid={`stick-${axis}`}
      >
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
        {compared && (
          <polyline points={points(compared)} fill="none" stroke={ink} strokeWidth={2} strokeDasharray="5 4" />
        )}
        <polyline points={points(rates)} fill="none" stroke={accent} strokeWidth={2.5} />
        {compared?.heavyStick !== undefined && compared.heavyDegS !== undefined && (
          <circle
            cx={x(compared.heavyStick)}
            cy={y(compared.heavyDegS)}
            r={4}
            fill="none"
            stroke={ink}
            strokeWidth={2}
          />
        )}
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
      {words.map((w) => (
        <Text key={w} fontSize="sm">
          {w}
        </Text>
      ))}
    </Box>
  );
}

function wordsOf(rates: Rates, shutter: string | undefined): string {
  const { heavyStick, heavyDegS, curve } = rates;
  if (shutter === undefined || heavyStick === undefined || heavyDegS === undefined)
    return `${Math.round(curve.at(-1)?.rateDegS ?? 0)}°/s at full stick.`;
  if (heavyStick >= 1) return `At ${shutter} even full stick has no excess blur.`;
  return `At ${shutter} a pan has excess blur beyond ${percent(heavyStick)} of stick, ${Math.round(heavyDegS)}°/s.`;
}

function comparedWords({ heavyStick, curve }: Rates, shutter: string | undefined): string {
  const most = `${Math.round(curve.at(-1)?.rateDegS ?? 0)}°/s at full stick`;
  if (shutter === undefined || heavyStick === undefined) return `${most}.`;
  return heavyStick >= 1 ? `${most}, without excess blur.` : `${most}, excess blur beyond ${percent(heavyStick)}.`;
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;
