import { Box, Button, Flex, Skeleton, Table, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { fitsQuery, rigsQuery } from "../../api/queries";
import { type Standing, StandingShape, standingColor, standingWord } from "../../lib/Standing";
import { SeatSheet } from "./SeatSheet";

type Cell = Schemas["FitCell"];

const STANDINGS: readonly Standing[] = ["tried", "computed", "tight", "loose", "does not go", "unknown"];

interface FitTableProps {
  cameras: readonly Schemas["StoredCamera"][];
  filters: readonly Schemas["ShownFilter"][];
}

/** Rigs across, glass down: what is known of each pair, its evidence one press away. */
export function FitTable({ cameras, filters }: FitTableProps) {
  const { data: cells } = useQuery(fitsQuery);
  const { data: rigs } = useQuery(rigsQuery);
  const [open, setOpen] = useState<{ rigId: string; filterId: string } | null>(null);
  if (!cells || !rigs) return <Skeleton h="160px" />;
  const cellOf = new Map(cells.map((c) => [`${c.filterId} ${c.rigId}`, c]));
  const nameOf = (rig: Schemas["StoredRig"]) => cameras.find((c) => c.id === rig.cameraId)?.name ?? "a camera";
  const rig = rigs.find((r) => r.id === open?.rigId);
  const filter = filters.find((f) => f.id === open?.filterId);
  return (
    <>
      <Box
        overflow="auto"
        maxH={{ base: "75dvh", lg: "calc(100dvh - 230px)" }}
        position="relative"
        tabIndex={0}
        role="region"
        aria-label="Fit table"
      >
        <Table.Root size="sm" stickyHeader>
          <Table.Header>
            <Table.Row bg="panel">
              <Table.ColumnHeader color="muted">Filter</Table.ColumnHeader>
              {rigs.map((r) => (
                <Table.ColumnHeader key={r.id} color="muted" minW="130px" verticalAlign="bottom">
                  {nameOf(r)}
                  <Text as="span" display="block" fontWeight="normal">
                    {r.name}
                  </Text>
                </Table.ColumnHeader>
              ))}
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {filters.map((f) => (
              <Table.Row key={f.id} bg="panel">
                <Table.Cell fontWeight="bold" whiteSpace="nowrap">
                  {f.title}{" "}
                  {f.slot && (
                    <Text as="span" color="muted" fontWeight="normal">
                      {f.slot}
                    </Text>
                  )}
                </Table.Cell>
                {rigs.map((r) => {
                  const cell = cellOf.get(`${f.id} ${r.id}`);
                  if (!cell) return <Table.Cell key={r.id} />;
                  return (
                    <Table.Cell key={r.id} p="0.5">
                      <CellButton
                        cell={cell}
                        name={`${f.title}${f.slot ? ` ${f.slot}` : ""} on ${nameOf(r)}, ${r.name}: ${wordOf(cell)}`}
                        onOpen={() => setOpen({ rigId: r.id, filterId: f.id })}
                      />
                    </Table.Cell>
                  );
                })}
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      </Box>
      <Flex gap="4" wrap="wrap" mt="2" fontSize="sm">
        {STANDINGS.map((s) => (
          <Flex key={s} gap="1.5" align="center" color={standingColor(s)}>
            <StandingShape standing={s} /> {standingWord(s)}
          </Flex>
        ))}
        <Text color="muted">– other mount or not listed</Text>
      </Flex>
      {rig && filter && (
        <SeatSheet
          rig={rig}
          filter={filter}
          title={`${filter.title} on ${nameOf(rig)}, ${rig.name}`}
          others={filters.filter((f) => f.id !== filter.id && f.cameras.includes(rig.cameraId))}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

/** Where nobody says it goes on and nothing was measured, there is nothing to say. */
const isNothing = (cell: Cell): boolean => cell.standing === "unknown" && !cell.claimed && !cell.offered;

/** Glass for other cameras, which nobody said goes on this one. */
const isForeign = (cell: Cell): boolean => isNothing(cell) || (cell.standing === "does not go" && !cell.claimed);

const wordOf = (cell: Cell): string => (isForeign(cell) ? "–" : standingWord(cell.standing));

function CellButton({ cell, name, onOpen }: { cell: Cell; name: string; onOpen: () => void }) {
  const quiet = isForeign(cell);
  return (
    <Button
      variant="ghost"
      size="sm"
      px="2"
      aria-label={name}
      title={cell.because[0] ?? ""}
      color={quiet ? "muted" : standingColor(cell.standing)}
      fontWeight={quiet ? "normal" : "semibold"}
      onClick={onOpen}
    >
      {!quiet && <StandingShape standing={cell.standing} />}
      {wordOf(cell)}
    </Button>
  );
}
