import { Box, Button, Flex, Grid, Skeleton, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { fitsQuery, rigsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { SelectField } from "../../lib/SelectField";
import { type Standing, StandingShape, standingColor, standingWord } from "../../lib/Standing";
import { SeatSheet } from "./SeatSheet";

type Cell = Schemas["FitCell"];

const STANDINGS: readonly Standing[] = ["tried", "computed", "tight", "loose", "does not go", "unknown"];

interface FitTableProps {
  cameras: readonly Schemas["StoredCamera"][];
  filters: readonly Schemas["ShownFilter"][];
}

/** Each camera as it is held, with its own filters: what is known of each, its evidence one press away. */
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
      <Grid
        gap="3"
        templateColumns="repeat(auto-fill, minmax(min(100%, 360px), 1fr))"
        overflow="auto"
        maxH={{ base: "75dvh", lg: "calc(100dvh - 230px)" }}
        tabIndex={0}
        role="region"
        aria-label="Fit table"
        alignContent="start"
      >
        {rigs.map((r) => (
          <RigFits
            key={r.id}
            camera={nameOf(r)}
            rig={r}
            filters={filters}
            cellOf={(filterId) => cellOf.get(`${filterId} ${r.id}`)}
            onOpen={(filterId) => setOpen({ rigId: r.id, filterId })}
          />
        ))}
      </Grid>
      <Flex gap="4" wrap="wrap" mt="2" fontSize="sm">
        {STANDINGS.map((s) => (
          <Flex key={s} gap="1.5" align="center" color={standingColor(s)}>
            <StandingShape standing={s} /> {standingWord(s)}
          </Flex>
        ))}
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

interface RigFitsProps {
  camera: string;
  rig: Schemas["StoredRig"];
  filters: readonly Schemas["ShownFilter"][];
  cellOf: (filterId: string) => Cell | undefined;
  onOpen: (filterId: string) => void;
}

/** One camera as it is held: its filters, and the way to any other. */
function RigFits({ camera, rig, filters, cellOf, onOpen }: RigFitsProps) {
  const known = filters.flatMap((f) => {
    const cell = cellOf(f.id);
    return cell && !isForeign(cell) ? [{ f, cell }] : [];
  });
  const others = filters.filter((f) => !known.some((k) => k.f.id === f.id));
  return (
    <Box as="section" aria-label={`${camera}, ${rig.name}`} borderWidth="1px" borderColor="edge" rounded="lg" p="3">
      <Text fontWeight="bold">{camera}</Text>
      <Text color="muted" fontSize="sm" mb="1">
        {rig.name}
      </Text>
      {known.map(({ f, cell }) => (
        <Flex key={f.id} align="center" gap="2" borderTopWidth="1px" borderColor="edge">
          <Text flex="1" fontWeight="bold">
            {f.title}{" "}
            <Text as="span" color="muted" fontWeight="normal">
              {f.slot}
            </Text>
          </Text>
          <CellButton
            cell={cell}
            name={`${nameWithSlot(f)} on ${camera}, ${rig.name}: ${standingWord(cell.standing)}`}
            onOpen={() => onOpen(f.id)}
          />
        </Flex>
      ))}
      {others.length > 0 && (
        <SelectField
          label={`Another filter on ${camera}, ${rig.name}`}
          isLabelHidden
          value=""
          options={[
            { value: "", name: known.length > 0 ? "Another filter…" : "No filter is listed for it. Look at one…" },
            ...others.map((f) => ({ value: f.id, name: nameWithSlot(f) })),
          ]}
          onChange={(id) => id && onOpen(id)}
        />
      )}
    </Box>
  );
}

const nameWithSlot = (f: Schemas["ShownFilter"]): string => `${f.title}${f.slot ? ` ${f.slot}` : ""}`;

/** Where nobody says it goes on and nothing was measured, there is nothing to say. */
const isNothing = (cell: Cell): boolean => cell.standing === "unknown" && !cell.claimed && !cell.offered;

/** Glass for other cameras, which nobody said goes on this one. */
const isForeign = (cell: Cell): boolean => isNothing(cell) || (cell.standing === "does not go" && !cell.claimed);

function CellButton({ cell, name, onOpen }: { cell: Cell; name: string; onOpen: () => void }) {
  return (
    <Button
      variant="ghost"
      size="sm"
      px="2"
      aria-label={name}
      title={cell.because[0] ?? ""}
      color={standingColor(cell.standing)}
      fontWeight="semibold"
      onClick={onOpen}
    >
      <StandingShape standing={cell.standing} />
      {standingWord(cell.standing)}
    </Button>
  );
}
