import { Box, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { signed } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { useWidth } from "../../lib/useWidth";
import { paint } from "../../theme/paint";

type Take = Schemas["MeasuredTakeAnswer"];

const HEIGHT = 96;
const EDGE = { left: 4, right: 4, top: 18, bottom: 4 };

interface Trace {
  name: string;
  values: readonly number[];
  /** So much lies between bottom and top at least: noise is not drawn as news. */
  least: number;
  write: (v: number) => string;
}

interface TakeTracesProps {
  take: Take;
  /** When each frame is shown, seconds; none for a clip without a clock. */
  times: readonly number[];
  /** Where the clip stands, seconds. */
  at?: number;
  /** Goes to a time. */
  onSeek?: (seconds: number) => void;
}

/** What changes over a clip, on one scale of its frames; a drag over it goes through the clip. */
export function TakeTraces({ take, times, at, onSeek }: TakeTracesProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const { ink, edge, muted, accent } = paint;
  const { exposure, motion, duplicates, drops } = take;
  const traces: Trace[] = [
    { name: "Exposure", values: exposure.meanStops, least: 0.5, write: (v) => `${signed(v)} stops` },
    { name: "The camera's own", values: exposure.gainStops, least: 0.5, write: (v) => `${signed(v)} stops` },
    {
      name: "Movement",
      values: motion.pairs.map((p) => Math.hypot(p.dxPx, p.dyPx)),
      least: 4,
      write: (v) => `${decimal(v, 1)} px a frame`,
    },
    { name: "Roll", values: motion.pairs.map((p) => p.rollDeg), least: 0.2, write: (v) => `${decimal(v, 2)}° a frame` },
  ];
  const frameAt = (clientX: number, box: DOMRect) =>
    Math.round(
      Math.min(Math.max((clientX - box.left - EDGE.left) / Math.max(1, width - EDGE.left - EDGE.right), 0), 1) *
        (take.frames - 1),
    );
  const seek = (event: React.PointerEvent) => {
    if (!onSeek || (event.type === "pointermove" && event.buttons === 0)) return;
    const seconds = times[frameAt(event.clientX, event.currentTarget.getBoundingClientRect())];
    if (seconds !== undefined) onSeek(seconds);
  };
  const now = at === undefined ? -1 : times.findIndex((t) => t >= at - 1e-3);
  const x = (i: number, n: number) =>
    EDGE.left + (i / Math.max(1, n - 1)) * Math.max(1, width - EDGE.left - EDGE.right);
  return (
    <Box
      ref={ref}
      data-testid="take-traces"
      onPointerDown={seek}
      onPointerMove={seek}
      cursor={onSeek && "crosshair"}
      touchAction={onSeek && "pan-y"}
    >
      {traces.map(({ name, values, least, write }) => {
        const low = Math.min(...values);
        const high = Math.max(...values);
        const middle = (low + high) / 2;
        const span = Math.max(least, high - low);
        const y = (v: number) => HEIGHT - EDGE.bottom - ((v - middle) / span + 0.5) * (HEIGHT - EDGE.top - EDGE.bottom);
        const path = values
          .map((v, i) => `${i ? "L" : "M"}${x(i, values.length).toFixed(1)} ${y(v).toFixed(1)}`)
          .join("");
        return (
          <svg
            key={name}
            width={width}
            height={HEIGHT}
            role="img"
            aria-label={`${name}: from ${write(low)} to ${write(high)}`}
            style={{ display: "block", fontSize: 12 }}
          >
            <line x1={0} x2={width} y1={HEIGHT - 1} y2={HEIGHT - 1} stroke={edge} />
            {[...duplicates, ...drops].map((frame) => (
              <line
                key={frame}
                x1={x(frame, take.frames)}
                x2={x(frame, take.frames)}
                y1={EDGE.top}
                y2={HEIGHT}
                stroke={muted}
                strokeDasharray="2 3"
              />
            ))}
            {now >= 0 && (
              <line x1={x(now, take.frames)} x2={x(now, take.frames)} y1={EDGE.top} y2={HEIGHT} stroke={accent} />
            )}
            <text x={0} y={12} fill={muted}>
              {name}: {write(low)} to {write(high)}
            </text>
            <path d={path} fill="none" stroke={ink} strokeWidth={1.5} />
          </svg>
        );
      })}
      <Text color="muted" fontSize="sm">
        {decimal(take.frames / take.fps, 1)} s from left to right
      </Text>
    </Box>
  );
}
