import { useDraggable } from "@dnd-kit/core";
import { memo } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/schemas";
import { Chip } from "../../lib/Chip";
import { greyOf, stopsOf } from "../../lib/glass";
import { LogSwitch } from "../../lib/LogSwitch";
import { decimal } from "../../lib/locale";
import style from "./FilterTray.module.css";

type Filter = Schemas["ShownFilter"];

interface FilterTrayProps {
  /** What is loose and at hand. */
  filters: readonly Filter[];
  /** So many filters go on as well, and are not at hand. */
  others: number;
  on: readonly string[];
  isPlaced: boolean;
  onToggle: (id: string) => void;
  onClear: () => void;
}

/** The glass to put on this camera: pressed, dragged onto the rail, or by its number. */
export function FilterTray({ filters, others, on, isPlaced, onToggle, onClear }: FilterTrayProps) {
  return (
    <div className={style.tray} role="group" aria-label="Filters to put on">
      {filters.map((filter, index) => (
        <FilterChip
          key={filter.id}
          filter={filter}
          number={index + 1}
          isOn={on.includes(filter.id)}
          onToggle={onToggle}
        />
      ))}
      {filters.length + others === 0 && (
        <p className={style.aside}>No filter of yours fits this camera yet. Add some in Kit.</p>
      )}
      {others > 0 && (
        <Link className={style.others} to="?edit=kit" aria-label={`${others} not at hand: choose what is`}>
          {others} not at hand
        </Link>
      )}
      <LogSwitch filters={filters}>learned strengths</LogSwitch>
      {isPlaced && (
        <Chip isBare onClick={onClear}>
          0 · back to the best
        </Chip>
      )}
    </div>
  );
}

interface FilterChipProps {
  filter: Filter;
  number: number;
  isOn: boolean;
  onToggle: (id: string) => void;
}

const FilterChip = memo(function FilterChip({ filter, number, isOn, onToggle }: FilterChipProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: filter.id });
  const takes = stopsOf(filter);
  const isVariable = filter.reads.kind === "variable";
  const range = `${decimal(filter.counts?.minStops, 1)} to ${decimal(filter.counts?.maxStops, 1)}`;
  return (
    <Chip
      ref={setNodeRef}
      isOn={isOn}
      className={style.filter}
      aria-pressed={isOn}
      style={{
        ...(isDragging && { zIndex: 10 }),
        ...(transform && { transform: `translate(${transform.x}px, ${transform.y}px)` }),
      }}
      onClick={() => onToggle(filter.id)}
      {...listeners}
    >
      {number <= 9 && <span className={style.aside}>{number}</span>}
      <span className={style.swatch} style={{ background: greyOf(takes).fill }} />
      {filter.title}
      <span className={style.aside}>
        {isVariable ? range : decimal(takes, 1)}
        {filter.learned && (
          <span title={`Learned from ${filter.learned.records} readings: ±${decimal(filter.learned.sdStops, 2)} stops`}>
            {" "}
            learned
          </span>
        )}
      </span>
    </Chip>
  );
});
