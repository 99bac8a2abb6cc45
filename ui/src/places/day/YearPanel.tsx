import { Box, Button, Flex, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { yearQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { CellGrid } from "../../lib/CellGrid";
import { BARE } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";

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
  if (error) return <Text color="breaks">{error.message}</Text>;
  if (!data) return <Skeleton h="160px" />;
  const stacks = new Map(data.stacks.map((s) => [s.id, s]));
  const name = (id: string) => stacks.get(id)?.name ?? BARE;
  const wordsOf = (cell: Schemas["YearCell"]) =>
    `EV ${decimal(cell.ev100, 1)} ±${decimal(cell.spreadStops, 1)}, ${cell.needStops < 0 ? `${decimal(-cell.needStops, 1)} stops short of light` : `${decimal(cell.needStops, 1)} stops needed`}, ${name(cell.stack)}${cell.isServed ? "" : ", not on as it is"}`;
  const { weeks } = data.answer;
  return (
    <Box>
      <CellGrid
        label="Year"
        corner="week of"
        isDense
        columns={weeks.map(({ from }, i) => ({ name: i % 4 === 0 ? from.slice(5) : from, isShown: i % 4 === 0 }))}
        rows={data.hours.map((hour, h) => ({
          name: hour,
          cells: weeks
            .flatMap(({ cells }) => cells[h] ?? [])
            .map((cell) => ({
              stops: stacks.get(cell.stack)?.stops ?? 0,
              mark: markOf(cell),
              words: wordsOf(cell),
            })),
        }))}
        said={({ row, column }) => {
          const cell = weeks[column]?.cells[row];
          return cell && `Week of ${weeks[column]?.from}, ${data.hours[row]}: ${wordsOf(cell)}.`;
        }}
        testId="year-cell"
      />
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

/** Nothing where it is covered as it is. */
const markOf = ({ isServed, needStops }: Schemas["YearCell"]): string => (isServed ? "" : needStops < 0 ? "·" : "×");
