import { Button, chakra, Flex, Text } from "@chakra-ui/react";
import { useDraggable } from "@dnd-kit/core";
import type { Schemas } from "../../api/client";
import { greyOf, stopsOf } from "../../lib/glass";
import { LogSwitch } from "../../lib/LogSwitch";
import { decimal } from "../../lib/locale";

type Filter = Schemas["ShownFilter"];

interface FilterTrayProps {
  filters: readonly Filter[];
  on: readonly string[];
  mounted: readonly string[] | undefined;
  isPlaced: boolean;
  onToggle: (id: string) => void;
  onClear: () => void;
}

/** The glass that goes on this camera: pressed, dragged onto the rail, or by its number. */
export function FilterTray({ filters, on, mounted, isPlaced, onToggle, onClear }: FilterTrayProps) {
  const loose = filters.filter((f) => !mounted?.includes(f.id));
  return (
    <Flex gap="1.5" wrap="wrap" align="center" role="group" aria-label="Filters to put on">
      {loose.map((filter, index) => (
        <Chip
          key={filter.id}
          filter={filter}
          number={index + 1}
          isOn={on.includes(filter.id)}
          onToggle={() => onToggle(filter.id)}
        />
      ))}
      {loose.length === 0 && <Text color="muted">No filter of yours fits this camera yet. Add some in Kit.</Text>}
      <LogSwitch filters={loose}>learned strengths</LogSwitch>
      {isPlaced && (
        <Button size="sm" variant="ghost" onClick={onClear}>
          0 · back to the best
        </Button>
      )}
    </Flex>
  );
}

const Swatch = chakra("span");

function Chip({
  filter,
  number,
  isOn,
  onToggle,
}: {
  filter: Filter;
  number: number;
  isOn: boolean;
  onToggle: () => void;
}) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: filter.id });
  const takes = stopsOf(filter);
  const isVariable = filter.reads.kind === "variable";
  const range = `${decimal(filter.counts?.minStops, 1)} to ${decimal(filter.counts?.maxStops, 1)}`;
  return (
    <Button
      ref={setNodeRef}
      size="sm"
      variant="outline"
      aria-pressed={isOn}
      bg={isOn ? "accentSoft" : "panel"}
      color="ink"
      borderColor={isOn ? "accent" : "edge"}
      borderWidth={isOn ? "2px" : "1px"}
      px="2"
      gap="1.5"
      minH={{ base: "44px", lg: "36px" }}
      touchAction="manipulation"
      zIndex={isDragging ? 10 : undefined}
      transform={transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined}
      onClick={onToggle}
      {...listeners}
    >
      {number <= 9 && (
        <Text as="span" color="muted" fontSize="sm">
          {number}
        </Text>
      )}
      <Swatch
        w="14px"
        h="22px"
        rounded="2px"
        borderWidth="1px"
        borderColor="edge"
        style={{ background: greyOf(takes).fill, forcedColorAdjust: "none" }}
      />
      {filter.title}
      <Text as="span" color="muted" fontWeight="normal">
        {isVariable ? range : decimal(takes, 1)}
        {filter.learned && (
          <Text
            as="span"
            title={`Learned from ${filter.learned.records} readings: ±${decimal(filter.learned.sdStops, 2)} stops`}
          >
            {" "}
            learned
          </Text>
        )}
      </Text>
    </Button>
  );
}
