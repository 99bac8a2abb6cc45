import { Text } from "@chakra-ui/react";
import { memo, useState } from "react";
import hidden from "./aloud.module.css";
import style from "./CellGrid.module.css";
import { classes } from "./classes";
import { greyOf } from "./glass";

/** A cell: as dark as so many stops of glass, with a mark in it. */
export interface GridCell {
  stops: number;
  mark: React.ReactNode;
  /** What it is, read aloud. */
  words: string;
}

/** Where a cell stands. */
interface Spot {
  row: number;
  column: number;
}

interface CellGridProps {
  label: string;
  /** What the heads of its columns are of. */
  corner: string;
  /** A head that would stand too close to the next is only read aloud. */
  columns: readonly { name: string; isShown: boolean }[];
  rows: readonly { name: string; cells: readonly GridCell[] }[];
  isDense?: boolean;
  /** What is said below of the cell that was chosen. */
  said: (at: Spot) => string | undefined;
  testId: string;
}

const STEPS: Record<string, Spot> = {
  ArrowUp: { row: -1, column: 0 },
  ArrowDown: { row: 1, column: 0 },
  ArrowLeft: { row: 0, column: -1 },
  ArrowRight: { row: 0, column: 1 },
};

const clamp = (i: number, length: number): number => Math.max(0, Math.min(length - 1, i));

/** Cells that arrow keys go over; what the chosen one says stands below. */
export function CellGrid({ label, corner, columns, rows, isDense, said, testId }: CellGridProps) {
  const [chosen, setChosen] = useState<Spot>({ row: 0, column: 0 });
  // There may be fewer than when it was chosen.
  const at = { row: clamp(chosen.row, rows.length), column: clamp(chosen.column, columns.length) };
  const onKeyDown = (event: React.KeyboardEvent<HTMLTableElement>) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    const next = { row: clamp(at.row + step.row, rows.length), column: clamp(at.column + step.column, columns.length) };
    setChosen(next);
    // Past the heads of the rows and of the columns.
    const cell = event.currentTarget.rows[next.row + 1]?.cells[next.column + 1];
    cell?.scrollIntoView({ block: "nearest", inline: "nearest" });
  };
  return (
    <>
      <div className={style.scroll}>
        <table
          // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a table whose cells are gone over is a grid
          role="grid"
          aria-label={label}
          aria-describedby={testId}
          tabIndex={0}
          onKeyDown={onKeyDown}
          className={classes(style.grid, isDense && style.dense)}
        >
          <thead>
            <tr>
              <th scope="col">{corner}</th>
              {columns.map(({ name, isShown }) => (
                <th key={name} scope="col">
                  {isShown ? name : <span className={hidden.aloud}>{name}</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, cells }, i) => (
              <GridRow
                key={name}
                row={i}
                name={name}
                cells={cells}
                chosen={i === at.row ? at.column : undefined}
                onChoose={setChosen}
              />
            ))}
          </tbody>
        </table>
      </div>
      <Text id={testId} aria-live="polite" mt="1" minH="1.5em" data-testid={testId}>
        {said(at)}
      </Text>
    </>
  );
}

interface GridRowProps {
  row: number;
  name: string;
  cells: readonly GridCell[];
  /** The column of the chosen cell, where it is in this row. */
  chosen: number | undefined;
  onChoose: (at: Spot) => void;
}

/** Drawn again only where its own cell was chosen or left. */
const GridRow = memo(({ row, name, cells, chosen, onChoose }: GridRowProps) => (
  <tr>
    <th scope="row">{name}</th>
    {cells.map(({ stops, mark, words }, column) => {
      const grey = greyOf(stops);
      return (
        // biome-ignore lint/a11y/useKeyWithClickEvents: the grid takes the keys
        // biome-ignore lint/a11y/useFocusableInteractive: and has the focus
        <td
          // biome-ignore lint/suspicious/noArrayIndexKey: a cell is its column
          key={column}
          // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: of a grid
          role="gridcell"
          aria-selected={column === chosen}
          aria-label={words}
          title={words}
          style={{ background: grey.fill, color: grey.ink }}
          onClick={() => onChoose({ row, column })}
        >
          {mark}
        </td>
      );
    })}
  </tr>
));
