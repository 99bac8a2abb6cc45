import { Button, Flex, IconButton, Text } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { filtersQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { decimal } from "../../lib/locale";
import { StateShape } from "../../lib/StateMark";
import { Table } from "../../lib/Table";
import cell from "../../lib/Table.module.css";
import { useDelete } from "../../lib/useDelete";
import { sayNotSaved } from "../../shell/toaster";
import { paint } from "../../theme/paint";
import { threeLanguages } from "./FilterForm";
import { FilterSheet, fieldsOf } from "./FilterSheet";

interface FilterTableProps {
  filters: Schemas["ShownFilter"][];
  cameras: Schemas["StoredCamera"][];
}

/** The glass there is: what its ring says, what was measured, what it goes on. */
export function FilterTable({ filters, cameras }: FilterTableProps) {
  if (filters.length === 0) return <Text color="muted">No filters yet. Type the first label above.</Text>;
  return (
    <Table label="Filter table" heads={["Label", "It says", "Measured", ""]}>
      {filters.map((filter) => (
        <FilterRow key={filter.id} filter={filter} cameras={cameras} />
      ))}
    </Table>
  );
}

function FilterRow({ filter, cameras }: { filter: Schemas["ShownFilter"]; cameras: FilterTableProps["cameras"] }) {
  const queries = useQueryClient();
  const [isEdited, setEdited] = useState(false);
  const refresh = () => {
    queries.invalidateQueries({ queryKey: filtersQuery.queryKey });
    queries.invalidateQueries({ queryKey: ["bench"] });
  };
  const remove = useDelete({
    what: filter.title,
    queryKey: filtersQuery.queryKey,
    remove: () =>
      unwrap(
        api.DELETE("/api/filters/{id}", { params: { path: { id: filter.id }, query: { version: filter.version } } }),
      ),
    restore: (version) =>
      unwrap(api.POST("/api/filters/{id}/restore", { params: { path: { id: filter.id }, query: { version } } })),
  });
  const settle = useMutation({
    mutationFn: (means: string) =>
      unwrap(
        api.PUT("/api/filters/{id}", {
          params: { path: { id: filter.id }, query: { version: filter.version } },
          body: { ...fieldsOf(filter), means },
        }),
      ),
    onSettled: refresh,
    onError: sayNotSaved,
  });
  return (
    <tr>
      <td className={cell.strong}>
        {filter.title}
        {stateOf(filter) && (
          <span className={cell.second} style={{ color: paint.breaks }}>
            {stateOf(filter)}
          </span>
        )}
      </td>
      <td className={cell.words}>
        {filter.open ? (
          <Flex gap="2" align="center" wrap="wrap" color="unknown">
            <StateShape state="unknown" />
            {filter.open}
            {[filter.reads, ...filter.reads.alternatives].map((way) => (
              <Button
                key={way.canonical}
                size="sm"
                variant="outline"
                disabled={settle.isPending}
                onClick={() => settle.mutate(way.canonical)}
              >
                {way.reads}
              </Button>
            ))}
          </Flex>
        ) : (
          threeLanguages(filter.reads)
        )}
        <span className={cell.second} style={{ color: paint.muted }}>
          {[
            filter.slot,
            cameras
              .filter((c) => filter.cameras.includes(c.id))
              .map((c) => c.name)
              .join(", "),
            filter.set,
          ]
            .filter(Boolean)
            .join(" · ")}
        </span>
      </td>
      <td>{measuredWords(filter)}</td>
      <td className={cell.actions}>
        <IconButton
          variant="ghost"
          minW="44px"
          color="muted"
          aria-label={`Edit ${filter.title}`}
          onClick={() => setEdited(true)}
        >
          <Pencil />
        </IconButton>
        {isEdited && <FilterSheet filter={filter} cameras={cameras} onClose={() => setEdited(false)} />}
        <IconButton
          variant="ghost"
          minW="44px"
          color="muted"
          aria-label={`Delete ${filter.title}`}
          onClick={() => remove.mutate()}
        >
          <Trash2 />
        </IconButton>
      </td>
    </tr>
  );
}

/** What its owner should know before reaching for it: broken, lost, dropped. */
function stateOf({ condition, history = [] }: Schemas["ShownFilter"]): string {
  if (condition === "broken" || condition === "scratched") return condition;
  const last = history.findLast((h) => h.what !== "cleaned" && h.what !== "bought");
  return last?.what === "lost" || last?.what === "dropped" ? `${last.what} ${last.at.slice(0, 10)}` : "";
}

function measuredWords({ measuredStops, stdErrStops, ring = [], learned }: Schemas["ShownFilter"]): string {
  if (learned) return `${decimal(learned.stops, 2)} ±${decimal(learned.sdStops, 2)}, learned`;
  if (ring.length > 1) return `${decimal(ring[0]?.stops, 1)} to ${decimal(ring.at(-1)?.stops, 1)} on its ring`;
  if (measuredStops === undefined) return "not measured";
  return `${decimal(measuredStops, 2)}${stdErrStops ? ` ±${decimal(stdErrStops, 2)}` : ""}`;
}
