import { Box, Flex, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { decimal } from "../../lib/locale";

type Frame = Schemas["MeasuredFrameAnswer"];

/** So much of the window's height a frame may take. */
const TALLEST_VH = 36;
const HISTOGRAM = { width: 512, height: 96 };

/** A frame with what is clipped drawn over it, and its histogram with middle grey. */
export function FrameReader({ frame, url }: { frame: Frame; url: string }) {
  const { widthPx, heightPx } = frame.file;
  return (
    <Box data-testid="frame-reader">
      <Box position="relative" w={`min(100%, ${(TALLEST_VH * widthPx) / heightPx}vh)`}>
        <img src={url} alt="The frame that was read" style={{ display: "block", width: "100%" }} />
        <Zebra frame={frame} />
      </Box>
      <Flex gap="4" wrap="wrap" fontSize="sm" mt="1">
        <Text color="breaks">▨ clipped: {percent(frame.blownShare)}</Text>
        <Text color="accent">▧ black: {percent(frame.crushedShare)}</Text>
      </Flex>
      <Histogram frame={frame} />
    </Box>
  );
}

const percent = (share: number): string => `${decimal(100 * share, share < 0.1 ? 1 : 0)} %`;

/** The blocks of which a part is clipped or black, striped so that they are told apart without colour. */
function Zebra({ frame: { zebra } }: { frame: Frame }) {
  const { columns, rows, blown, crushed } = zebra;
  const blocks = (shares: readonly (readonly number[])[], fill: string) =>
    shares
      .flatMap((row, y) => row.map((share, x) => ({ share, x, y })))
      .filter(({ share }) => share > 0.01)
      .map(({ share, x, y }) => (
        <rect key={`${fill} ${x} ${y}`} x={x} y={y} width={1} height={1} fill={fill} opacity={0.35 + 0.65 * share} />
      ));
  return (
    <svg
      viewBox={`0 0 ${columns} ${rows}`}
      preserveAspectRatio="none"
      aria-hidden="true"
      style={{ position: "absolute", inset: 0, width: "100%", height: "100%" }}
    >
      <defs>
        <pattern id="blown" width="0.2" height="0.2" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="0.1" height="0.2" fill="#e0233c" />
        </pattern>
        <pattern id="crushed" width="0.2" height="0.2" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <rect width="0.1" height="0.2" fill="#7d83ff" />
        </pattern>
      </defs>
      {blocks(blown, "url(#blown)")}
      {blocks(crushed, "url(#crushed)")}
    </svg>
  );
}

const CHANNELS = [
  ["red", "#d9304a"],
  ["green", "#2f9e5b"],
  ["blue", "#3d62e0"],
] as const;

function Histogram({ frame: { histogram, meanStops } }: { frame: Frame }) {
  const { width, height } = HISTOGRAM;
  // The ends pile up: the rest is drawn to its own scale.
  const most = Math.max(1, ...histogram.luma.slice(1, -1));
  const y = (n: number) => height - Math.min(1, n / most) * (height - 4);
  const line = (counts: readonly number[]) => counts.map((n, code) => `${code * 2},${y(n).toFixed(1)}`).join(" ");
  const words =
    meanStops == null
      ? "Nearly all black"
      : `Mean ${decimal(Math.abs(meanStops), 1)} stops ${meanStops < 0 ? "under" : "over"} middle grey`;
  return (
    <Box mt="2">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`Histogram. ${words}`}
        style={{ width: "100%", height: "96px" }}
        preserveAspectRatio="none"
      >
        <polygon points={`0,${height} ${line(histogram.luma)} ${width},${height}`} fill="currentColor" opacity={0.25} />
        {CHANNELS.map(([channel, color]) => (
          <polyline
            key={channel}
            points={line(histogram[channel])}
            fill="none"
            stroke={color}
            strokeWidth={1.5}
            vectorEffect="non-scaling-stroke"
          />
        ))}
        <line
          x1={histogram.greyCode * 2}
          x2={histogram.greyCode * 2}
          y1={0}
          y2={height}
          stroke="currentColor"
          strokeDasharray="4 3"
        />
      </svg>
      <Text fontSize="sm" color="muted">
        {words} (dashed)
      </Text>
    </Box>
  );
}
