import { Box, Button, chakra, Flex, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { yearQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { greyOf } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";

const Table = chakra("table");
const Row = chakra("tr");
const Head = chakra("th");
const Data = chakra("td");

interface YearPanelProps {
  shootId: string;
  cameras: Record<string, string>;
}

/** The place through a year: for each week, the glass that the light calls for at the hours in use. */
export function YearPanel({ shootId, cameras }: YearPanelProps) {
  const [isOpen, setOpen] = useState(false);
  const [camera, setCamera] = useState(Object.keys(cameras)[0] ?? "");
  return (
    <Panel heading="Year" note="this place, week by week, at the hours of your shots">
      {isOpen ? (
        <Stack gap="3">
          <SelectField
            label="With the camera"
            maxW="320px"
            value={camera}
            options={Object.entries(cameras).map(([value, name]) => ({ value, name }))}
            onChange={setCamera}
          />
          <Year shootId={shootId} camera={camera} />
        </Stack>
      ) : (
        <Button variant="outline" onClick={() => setOpen(true)}>
          Show the year
        </Button>
      )}
    </Panel>
  );
}

function Year({ shootId, camera }: { shootId: string; camera: string }) {
  const { data, error } = useQuery(yearQuery(shootId, camera));
  const [at, setAt] = useState({ week: 0, hour: 0 });
  if (error) return <Text color="breaks">{error.message}</Text>;
  if (!data) return <Skeleton h="160px" />;
  const stacks = new Map(data.stacks.map((s) => [s.id, s]));
  const name = (id: string) => stacks.get(id)?.name ?? "no filter";
  const wordsOf = (cell: Schemas["YearCell"]) =>
    `EV ${decimal(cell.ev100, 1)} ±${decimal(cell.spreadStops, 1)}, ${cell.needStops < 0 ? `${decimal(-cell.needStops, 1)} stops short of light` : `${decimal(cell.needStops, 1)} stops needed`}, ${name(cell.stack)}${cell.isServed ? "" : ", not on as it is"}`;
  const week = data.answer.weeks[Math.min(at.week, data.answer.weeks.length - 1)];
  const cell = week?.cells[at.hour];
  const move = (e: React.KeyboardEvent) => {
    const [dx, dy] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key] ?? [0, 0];
    if (!dx && !dy) return;
    e.preventDefault();
    setAt({
      week: Math.max(0, Math.min(data.answer.weeks.length - 1, at.week + (dx ?? 0))),
      hour: Math.max(0, Math.min(data.hours.length - 1, at.hour + (dy ?? 0))),
    });
  };
  return (
    <Box>
      <Box overflowX="auto" position="relative">
        <Table
          role="grid"
          aria-label="Year"
          aria-describedby="year-cell"
          tabIndex={0}
          onKeyDown={move}
          css={{ borderCollapse: "separate", borderSpacing: "1px" }}
        >
          <thead>
            <Row>
              <Head scope="col" fontSize="xs" color="muted" textAlign="start" pe="2">
                week of
              </Head>
              {data.answer.weeks.map((w, i) => (
                <Head
                  key={w.from}
                  scope="col"
                  fontSize="xs"
                  fontWeight="normal"
                  color="muted"
                  minW="18px"
                  maxW="18px"
                  whiteSpace="nowrap"
                >
                  {i % 4 === 0 ? w.from.slice(5) : <Text srOnly>{w.from}</Text>}
                </Head>
              ))}
            </Row>
          </thead>
          <tbody>
            {data.hours.map((hour, h) => (
              <Row key={hour}>
                <Head scope="row" fontSize="sm" textAlign="start">
                  {hour}
                </Head>
                {data.answer.weeks.map((w, i) => {
                  const c = w.cells[h];
                  if (!c) return null;
                  const isChosen = i === at.week && h === at.hour;
                  return (
                    <Data
                      key={w.from}
                      role="gridcell"
                      aria-selected={isChosen}
                      aria-label={wordsOf(c)}
                      h="28px"
                      p="0"
                      outline={isChosen ? "3px solid" : undefined}
                      outlineColor="accent"
                      textAlign="center"
                      fontSize="xs"
                      style={{
                        background: greyOf(stacks.get(c.stack)?.stops ?? 0).fill,
                        color: greyOf(stacks.get(c.stack)?.stops ?? 0).ink,
                      }}
                      onClick={() => setAt({ week: i, hour: h })}
                    >
                      {c.isServed ? "" : c.needStops < 0 ? "·" : "×"}
                    </Data>
                  );
                })}
              </Row>
            ))}
          </tbody>
        </Table>
      </Box>
      <Text id="year-cell" aria-live="polite" mt="1" data-testid="year-cell">
        {week && cell && `Week of ${week.from}, ${data.hours[at.hour]}: ${wordsOf(cell)}.`}
      </Text>
      <Flex gap="4" wrap="wrap" color="muted" fontSize="sm">
        <Text>as dark as the filter · × not covered · · short of light</Text>
        {data.answer.calls.slice(0, 4).map((c) => (
          <Text key={c.stack}>
            {c.name}: {c.cells} cells
          </Text>
        ))}
      </Flex>
      {data.answer.words.map((w) => (
        <Text key={w}>{w}.</Text>
      ))}
    </Box>
  );
}
