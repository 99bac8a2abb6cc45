import { Box, Button, Flex, Skeleton, Table, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { fitsQuery } from "../../api/queries";
import { StateShape } from "../../lib/StateMark";
import { TrialSheet } from "./TrialSheet";

type Cell = Schemas["FitCell"];

const WORDS: Record<Cell["state"], string> = {
  holds: "tried",
  tight: "tight",
  breaks: "does not go",
  unknown: "untried",
  none: "–",
};

interface FitTableProps {
  cameras: readonly Schemas["StoredCamera"][];
  filters: readonly Schemas["ShownFilter"][];
}

/** Cameras across, glass down: what is known of each pair, its evidence one press away. */
export function FitTable({ cameras, filters }: FitTableProps) {
  const { data: cells } = useQuery(fitsQuery);
  const [open, setOpen] = useState<{ cameraId: string; filterId: string } | null>(null);
  if (!cells) return <Skeleton h="160px" />;
  const cellOf = (filterId: string, cameraId: string) =>
    cells.find((c) => c.filterId === filterId && c.cameraId === cameraId);
  const shown = open && cellOf(open.filterId, open.cameraId);
  return (
    <>
      <Box overflowX="auto" position="relative" tabIndex={0} role="region" aria-label="Fit table">
        <Table.Root size="sm">
          <Table.Header>
            <Table.Row bg="panel">
              <Table.ColumnHeader color="muted">Glass</Table.ColumnHeader>
              {cameras.map((c) => (
                <Table.ColumnHeader key={c.id} color="muted">
                  {c.name}
                </Table.ColumnHeader>
              ))}
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {filters.map((f) => (
              <Table.Row key={f.id} bg="panel">
                <Table.Cell fontWeight="bold">
                  {f.title}{" "}
                  {f.slot && (
                    <Text as="span" color="muted" fontWeight="normal">
                      {f.slot}
                    </Text>
                  )}
                </Table.Cell>
                {cameras.map((c) => {
                  const cell = cellOf(f.id, c.id);
                  if (!cell) return <Table.Cell key={c.id} />;
                  return (
                    <Table.Cell key={c.id} p="1">
                      <CellButton
                        cell={cell}
                        name={`${f.title} on ${c.name}: ${WORDS[cell.state]}`}
                        onOpen={() => setOpen({ cameraId: c.id, filterId: f.id })}
                      />
                    </Table.Cell>
                  );
                })}
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      </Box>
      {shown && (
        <TrialSheet
          cell={shown}
          title={`${filters.find((f) => f.id === shown.filterId)?.title} on ${cameras.find((c) => c.id === shown.cameraId)?.name}`}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

function CellButton({ cell, name, onOpen }: { cell: Cell; name: string; onOpen: () => void }) {
  return (
    <Button
      variant="ghost"
      size="sm"
      aria-label={name}
      color={cell.state === "none" ? "muted" : cell.state}
      onClick={onOpen}
    >
      <Flex gap="1.5" align="center">
        {cell.state !== "none" && <StateShape state={cell.state} />}
        {WORDS[cell.state]}
      </Flex>
    </Button>
  );
}
