import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react";
import { useState } from "react";
import { dateIn } from "../../lib/zone";

const WEEK = 7;
const monthName = new Intl.DateTimeFormat(undefined, { month: "long", year: "numeric", timeZone: "UTC" });
const weekday = new Intl.DateTimeFormat(undefined, { weekday: "narrow", timeZone: "UTC" });
const DAY_MS = 86_400_000;
/** A week that begins with a Monday. */
const WEEKDAYS = Array.from({ length: WEEK }, (_, i) => Date.UTC(2024, 0, 1) + i * DAY_MS);

interface CalendarProps {
  /** How many records each day has, by its date. */
  days: ReadonlyMap<string, number>;
  chosen: string;
  onChoose: (date: string) => void;
}

/** The days of which something is recorded, month by month; one can be chosen. */
export function Calendar({ days, chosen, onChoose }: CalendarProps) {
  const latest = [...days.keys()].sort().at(-1) ?? dateIn(Date.now(), "");
  const [month, setMonth] = useState(latest.slice(0, 7));
  const first = Date.parse(`${month}-01T00:00:00Z`);
  const before = (new Date(first).getUTCDay() + 6) % WEEK;
  const go = (by: number) => {
    const there = new Date(first);
    there.setUTCMonth(there.getUTCMonth() + by);
    setMonth(there.toISOString().slice(0, 7));
  };
  const next = new Date(first);
  next.setUTCMonth(next.getUTCMonth() + 1);
  const count = Math.round((next.getTime() - first) / DAY_MS);
  return (
    <Box maxW="340px" data-testid="calendar">
      <Flex align="center" justify="space-between">
        <Button variant="ghost" size="sm" minW="44px" minH="44px" aria-label="The month before" onClick={() => go(-1)}>
          ‹
        </Button>
        <Text fontWeight="bold" aria-live="polite">
          {monthName.format(first)}
        </Text>
        <Button variant="ghost" size="sm" minW="44px" minH="44px" aria-label="The month after" onClick={() => go(1)}>
          ›
        </Button>
      </Flex>
      <Grid templateColumns={`repeat(${WEEK}, 1fr)`} gap="1" textAlign="center" fontVariantNumeric="tabular-nums">
        {WEEKDAYS.map((day) => (
          <Text key={day} color="muted" fontSize="sm" aria-hidden>
            {weekday.format(day)}
          </Text>
        ))}
        {Array.from({ length: count }, (_, i) => {
          const date = `${month}-${String(i + 1).padStart(2, "0")}`;
          const n = days.get(date) ?? 0;
          const column = i === 0 ? { gridColumnStart: before + 1 } : {};
          return n === 0 ? (
            <Text key={date} py="1" color="muted" {...column}>
              {i + 1}
            </Text>
          ) : (
            <Button
              key={date}
              size="sm"
              px="0"
              minW="0"
              minH="40px"
              variant={date === chosen ? "solid" : "outline"}
              aria-pressed={date === chosen}
              aria-label={`${date}: ${n} records`}
              onClick={() => onChoose(date === chosen ? "" : date)}
              {...column}
            >
              {i + 1}
            </Button>
          );
        })}
      </Grid>
    </Box>
  );
}
