import { Box, Grid, Link, Text } from "@chakra-ui/react";
import { Link as RouterLink } from "react-router";
import { signed } from "../../lib/format";
import { decimal } from "../../lib/locale";

/** Half of the scale, stops. */
const REACH = 1;

interface BeliefRowProps {
  name: string;
  /** How far it is from what is printed or foretold, stops. */
  offset: number;
  sd: number;
  /** How many standard deviations the band reaches to either side. */
  band: number;
  /** As it was measured by itself, beside the same zero. */
  measured?: number | undefined;
  /** What it comes to, in words. */
  value: string;
  /** What that rests on. */
  note: string;
  /** Words by which its records are found. */
  sought: string;
}

const at = (stops: number) => 50 + (50 * Math.max(-REACH, Math.min(REACH, stops))) / REACH;

/** What is believed of one thing: a band on a scale of stops, whose middle is what is printed or foretold. */
export function BeliefRow({ name, offset, sd, band, measured, value, note, sought }: BeliefRowProps) {
  const low = offset - band * sd;
  const high = offset + band * sd;
  return (
    <Grid
      gap="3"
      alignItems="center"
      templateColumns={{ base: "1fr auto", sm: "minmax(0, 5fr) minmax(0, 4fr) 130px" }}
      py="1.5"
      borderBottomWidth="1px"
      borderColor="edge"
      data-testid="belief"
    >
      <Box>
        <Text fontWeight="bold">{name}</Text>
        <Link asChild color="muted" fontSize="sm" textDecoration="underline" py="1">
          <RouterLink to={`/log?${new URLSearchParams({ view: "records", q: sought })}`}>{note}</RouterLink>
        </Link>
      </Box>
      <Box gridColumn={{ base: "1 / -1", sm: "auto" }} gridRow={{ base: 2, sm: "auto" }}>
        <svg
          viewBox="0 0 100 14"
          preserveAspectRatio="none"
          width="100%"
          height="34"
          role="img"
          aria-label={`${name}: ${signed(offset)} stops, between ${signed(low)} and ${signed(high)} nine times in ten`}
        >
          <line x1="0" x2="100" y1="7" y2="7" stroke="var(--chakra-colors-edge)" vectorEffect="non-scaling-stroke" />
          {[-1, -0.5, 0.5, 1].map((tick) => (
            <line
              key={tick}
              x1={at(tick)}
              x2={at(tick)}
              y1="5"
              y2="9"
              stroke="var(--chakra-colors-edge)"
              vectorEffect="non-scaling-stroke"
            />
          ))}
          <line
            x1="50"
            x2="50"
            y1="1"
            y2="13"
            stroke="var(--chakra-colors-muted)"
            strokeDasharray="3 2"
            vectorEffect="non-scaling-stroke"
          />
          <rect
            x={at(low)}
            width={Math.max(0.5, at(high) - at(low))}
            y="5"
            height="4"
            fill="var(--chakra-colors-accent)"
            opacity="0.35"
          />
          {measured !== undefined && (
            <line
              x1={at(measured)}
              x2={at(measured)}
              y1="2"
              y2="12"
              stroke="var(--chakra-colors-ink)"
              strokeWidth="1"
              vectorEffect="non-scaling-stroke"
            />
          )}
          <line
            x1={at(offset)}
            x2={at(offset)}
            y1="3"
            y2="11"
            stroke="var(--chakra-colors-accent)"
            strokeWidth="4"
            vectorEffect="non-scaling-stroke"
          />
        </svg>
      </Box>
      <Text textAlign="end" whiteSpace="nowrap" fontVariantNumeric="tabular-nums">
        <b>{value}</b> ±{decimal(sd, 2)}
      </Text>
    </Grid>
  );
}
