import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Schemas } from "../../api/schemas";
import { signed } from "../../lib/format";
import { greyOf } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { StateShape } from "../../lib/StateMark";

type Cell = Schemas["CoverageCell"];

interface CoverageGridProps {
  covered: Schemas["Covered"];
  glassOf: (ids: readonly string[], settings?: Record<string, number>) => string;
}

const Table = chakra("table");
const Row = chakra("tr");
const Head = chakra("th");
const Data = chakra("td");

const MOVES: Record<string, { down: number; right: number }> = {
  ArrowUp: { down: -1, right: 0 },
  ArrowDown: { down: 1, right: 0 },
  ArrowLeft: { down: 0, right: -1 },
  ArrowRight: { down: 0, right: 1 },
};

/**
 * Light across, from a lantern to snow; looks down. A cell is as dark as its glass
 * and carries the shape of its verdict. Arrow keys move from cell to cell.
 */
export function CoverageGrid({ covered, glassOf }: CoverageGridProps) {
  const [at, setAt] = useState({ row: 0, column: 0 });
  const { rows, lightsEv100: lights } = covered;
  const row = Math.min(at.row, rows.length - 1);
  const cell = rows[row]?.cells[at.column];
  const onKeyDown = (event: React.KeyboardEvent) => {
    const move = MOVES[event.key];
    if (!move) return;
    event.preventDefault();
    setAt({ row: clamp(row + move.down, rows.length), column: clamp(at.column + move.right, lights.length) });
  };
  return (
    <Box>
      <Box overflowX="auto" position="relative">
        <Table
          role="grid"
          aria-label="Coverage"
          aria-describedby="coverage-cell"
          tabIndex={0}
          onKeyDown={onKeyDown}
          css={{ borderCollapse: "separate", borderSpacing: "2px" }}
        >
          <thead>
            <Row>
              <Head scope="col" textAlign="start" fontWeight="normal" fontSize="xs" color="muted">
                EV
              </Head>
              {lights.map((ev, i) => (
                <Head key={ev} scope="col" fontWeight="normal" fontSize="xs" color="muted" minW="26px">
                  {i % 2 === 0 ? decimal(ev, 0) : <Text srOnly>{decimal(ev, 1)}</Text>}
                </Head>
              ))}
            </Row>
          </thead>
          <tbody>
            {rows.map((line, i) => (
              <Row key={line.name}>
                <Head scope="row" textAlign="start" fontWeight="semibold" fontSize="sm" whiteSpace="nowrap" pe="2">
                  {line.name}
                </Head>
                {line.cells.map((c, j) => (
                  <CellBox
                    key={lights[j]}
                    cell={c}
                    words={wordsOf(c, lights[j] ?? 0, glassOf)}
                    isChosen={i === row && j === at.column}
                    onChoose={() => setAt({ row: i, column: j })}
                  />
                ))}
              </Row>
            ))}
          </tbody>
        </Table>
      </Box>
      <Text id="coverage-cell" aria-live="polite" mt="1" minH="1.5em" data-testid="coverage-cell">
        {cell && `${rows[row]?.name}: ${wordsOf(cell, lights[at.column] ?? 0, glassOf)}`}
      </Text>
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

const clamp = (i: number, length: number): number => Math.max(0, Math.min(length - 1, i));

function wordsOf(cell: Cell, ev: number, glassOf: CoverageGridProps["glassOf"]): string {
  const layers = cell.layers > 1 ? ` (${cell.layers} layers)` : "";
  return `EV ${decimal(ev, 1)}, ${glassOf(cell.filters, cell.settings)}${layers}, ${signed(cell.errorStops)} stops, ${cell.state}`;
}

interface CellBoxProps {
  cell: Cell;
  words: string;
  isChosen: boolean;
  onChoose: () => void;
}

function CellBox({ cell, words, isChosen, onChoose }: CellBoxProps) {
  const grey = greyOf(cell.stops);
  return (
    <Data
      role="gridcell"
      aria-selected={isChosen}
      aria-label={words}
      title={words}
      w="26px"
      h="30px"
      p="0"
      cursor="pointer"
      outline={isChosen ? "3px solid" : undefined}
      outlineColor="accent"
      style={{ background: grey.fill, color: grey.ink }}
      onClick={onChoose}
    >
      <Flex justify="center">
        <StateShape state={cell.state} size={12} />
      </Flex>
    </Data>
  );
}
