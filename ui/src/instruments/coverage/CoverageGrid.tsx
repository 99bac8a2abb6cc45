import { Box, Flex, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { CellGrid } from "../../lib/CellGrid";
import { signed } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { StateShape } from "../../lib/StateMark";

type Cell = Schemas["CoverageCell"];

interface CoverageGridProps {
  covered: Schemas["Covered"];
  glassOf: (ids: readonly string[], settings?: Record<string, number>) => string;
}

/**
 * Light across, from a lantern to snow; looks down. A cell is as dark as its glass
 * and carries the shape of its verdict.
 */
export function CoverageGrid({ covered, glassOf }: CoverageGridProps) {
  const { rows, lightsEv100: lights } = covered;
  return (
    <Box>
      <CellGrid
        label="Coverage"
        corner="EV"
        columns={lights.map((ev, i) => ({ name: decimal(ev, i % 2 === 0 ? 0 : 1), isShown: i % 2 === 0 }))}
        rows={rows.map(({ name, cells }) => ({
          name,
          cells: cells.map((cell, j) => ({
            stops: cell.stops,
            mark: <StateShape state={cell.state} size={12} />,
            words: wordsOf(cell, lights[j] ?? 0, glassOf),
          })),
        }))}
        said={({ row, column }) => {
          const cell = rows[row]?.cells[column];
          return cell && `${rows[row]?.name}: ${wordsOf(cell, lights[column] ?? 0, glassOf)}`;
        }}
        testId="coverage-cell"
      />
      <Flex gap="4" wrap="wrap" fontSize="sm" color="muted">
        {(["holds", "tight", "breaks"] as const).map((state) => (
          <Flex key={state} gap="1.5" align="center">
            <StateShape state={state} size={12} /> {state}
          </Flex>
        ))}
        <Text>across: EV at ISO 100, lantern to sun on snow</Text>
      </Flex>
    </Box>
  );
}

function wordsOf(cell: Cell, ev: number, glassOf: CoverageGridProps["glassOf"]): string {
  const layers = cell.layers > 1 ? ` (${cell.layers} layers)` : "";
  return `EV ${decimal(ev, 1)}, ${glassOf(cell.filters, cell.settings)}${layers}, ${signed(cell.errorStops)} stops, ${cell.state}`;
}
