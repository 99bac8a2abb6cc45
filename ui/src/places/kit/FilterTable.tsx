import { Button, Flex, IconButton, Table, Text } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { api, type Schemas, unwrap } from "../../api/client";
import { filtersQuery } from "../../api/queries";
import { StateShape } from "../../lib/StateMark";
import { useDelete } from "../../lib/useDelete";
import { toaster } from "../../shell/toaster";
import { threeLanguages } from "./FilterForm";

interface FilterTableProps {
  filters: Schemas["ShownFilter"][];
  cameras: Schemas["StoredCamera"][];
}

/** The glass there is: what its ring says, what was measured, what it goes on. */
export function FilterTable({ filters, cameras }: FilterTableProps) {
  if (filters.length === 0) return <Text color="muted">No glass yet. Type the first label above.</Text>;
  return (
    // Positioned, so that what only screen readers see scrolls with the table.
    <Table.ScrollArea position="relative" tabIndex={0} role="region" aria-label="Filters">
      <Table.Root size="sm">
        <Table.Header>
          <Table.Row bg="panel">
            {["Label", "It says", "Measured", "Goes on", "Slot", ""].map((name) => (
              <Table.ColumnHeader key={name} color="muted">
                {name}
                {name === "" && <Text srOnly>Actions</Text>}
              </Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {filters.map((filter) => (
            <FilterRow key={filter.id} filter={filter} cameras={cameras} />
          ))}
        </Table.Body>
      </Table.Root>
    </Table.ScrollArea>
  );
}

function FilterRow({ filter, cameras }: { filter: Schemas["ShownFilter"]; cameras: FilterTableProps["cameras"] }) {
  const queries = useQueryClient();
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
    onError: (error) => toaster.create({ title: "Not stored", description: error.message }),
  });
  return (
    <Table.Row bg="panel">
      <Table.Cell fontWeight="bold">{filter.title}</Table.Cell>
      <Table.Cell>
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
      </Table.Cell>
      <Table.Cell>{measuredWords(filter)}</Table.Cell>
      <Table.Cell>
        {cameras
          .filter((c) => filter.cameras.includes(c.id))
          .map((c) => c.name)
          .join(", ")}
      </Table.Cell>
      <Table.Cell>{filter.slot}</Table.Cell>
      <Table.Cell textAlign="end">
        <IconButton
          variant="ghost"
          minW="44px"
          color="muted"
          aria-label={`Delete ${filter.title}`}
          onClick={() => remove.mutate()}
        >
          <Trash2 />
        </IconButton>
      </Table.Cell>
    </Table.Row>
  );
}

function measuredWords({ measuredStops, stdErrStops }: Schemas["ShownFilter"]): string {
  if (measuredStops === undefined) return "not measured";
  return `${measuredStops.toFixed(2)}${stdErrStops ? ` ±${stdErrStops.toFixed(2)}` : ""}`;
}

/** The fields of a filter that its owner states. */
function fieldsOf(filter: Schemas["ShownFilter"]): Schemas["StoredFilterFields"] {
  const {
    id: _,
    version: _v,
    createdAt: _c,
    updatedAt: _u,
    deletedAt: _d,
    title: _t,
    reads: _r,
    counts: _k,
    open: _o,
    ...fields
  } = filter;
  return fields;
}
