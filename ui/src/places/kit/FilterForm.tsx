import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { filtersQuery, labelQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { faultsOf } from "../../lib/faults";
import { decimal, localNumber } from "../../lib/locale";
import { TextField } from "../../lib/TextField";
import { significant } from "../../lib/units";
import { GoesOn } from "./GoesOn";
import { useLabelsIn } from "./useLabelsIn";

/** Adds a filter by the text on its ring, which is read while it is typed. */
export function FilterForm({ cameras }: { cameras: Schemas["StoredCamera"][] }) {
  const [label, setLabel] = useState("");
  const [means, setMeans] = useState("");
  const [measured, setMeasured] = useState("");
  const [goesOn, setGoesOn] = useState<string[]>(() => cameras.slice(0, 1).map((c) => c.id));
  const queries = useQueryClient();
  const read = useQuery(labelQuery(label));
  const several = useLabelsIn(read.isError ? label : "");
  const labels = several.length > 1 ? several : [];
  const add = useMutation({
    mutationFn: async (): Promise<unknown> => {
      if (labels.length > 0)
        return addAll(
          labels,
          cameras.filter((c) => goesOn.includes(c.id)).map((c) => c.name),
        );
      const body: Schemas["StoredFilterFields"] = {
        label: label.trim(),
        cameras: goesOn,
        ...(means && { means }),
        ...(measured.trim() && { measuredStops: Number(measured.replace(",", ".")) }),
      };
      return unwrap(api.POST("/api/filters", { body }));
    },
    onSuccess: () => {
      setLabel("");
      setMeans("");
      setMeasured("");
      queries.invalidateQueries({ queryKey: filtersQuery.queryKey });
      queries.invalidateQueries({ queryKey: ["bench"] });
    },
  });
  const fault = faultsOf(add.error);
  const labelFault = label.trim() === "" || labels.length > 0 ? undefined : faultsOf(read.error)("label");
  return (
    <form
      aria-label="Add a filter"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <Stack gap="2" mb="4">
        <Flex gap="3" wrap="wrap" align="flex-start">
          <Flex w="260px">
            <TextField
              label="Label on the ring"
              value={label}
              onChange={(text) => {
                setLabel(text);
                setMeans("");
              }}
              fault={labelFault ?? fault("label")}
              helper="ND16, 4 stop, 0.9; or several: 4 8 16/PL CPL"
            />
          </Flex>
          <Flex w="180px">
            <TextField
              label="Measured stops, if known"
              value={measured}
              onChange={setMeasured}
              fault={fault("measuredStops")}
              inputMode="decimal"
            />
          </Flex>
          <GoesOn cameras={cameras} value={goesOn} onChange={setGoesOn} />
        </Flex>
        {labels.length > 0 && (
          <Text data-testid="labels-read">
            {labels.length} filters: {labels.join(", ")}
          </Text>
        )}
        {label.trim() && read.data && !labelFault && <Meaning read={read.data} means={means} onMeans={setMeans} />}
        {add.error && (
          <Text color="breaks" role="alert">
            {add.error.message}
          </Text>
        )}
        <Button
          type="submit"
          alignSelf="flex-start"
          loading={add.isPending}
          disabled={label.trim() === "" || Boolean(labelFault)}
        >
          {labels.length > 0 ? `Add ${labels.length} filters` : "Add filter"}
        </Button>
      </Stack>
    </form>
  );
}

/** Adds filters by their labels: all or none. */
const addAll = (labels: readonly string[], cameras: readonly string[]): Promise<unknown> => {
  const text = JSON.stringify({
    format: "pinhole-kit-1",
    cameras: [],
    filters: labels.map((label) => ({ label, cameras })),
  });
  return unwrap(api.POST("/api/kit/import", { body: { format: "json", text, apply: true } }));
};

/** What the label says in all three languages, and the question where it says two things. */
function Meaning({
  read,
  means,
  onMeans,
}: {
  read: Schemas["LabelAnswer"];
  means: string;
  onMeans: (text: string) => void;
}) {
  const ways = [{ reads: read.reads, canonical: read.canonical, totalStops: read.totalStops }, ...read.alternatives];
  if (!read.ambiguous) return <Text data-testid="label-reads">{threeLanguages(read)}</Text>;
  return (
    <Flex gap="2" align="center" wrap="wrap" role="group" aria-label="Which is it?">
      <Text>This can be read in two ways. Which is it?</Text>
      {ways.map((way) => (
        <Button
          key={way.canonical}
          size="sm"
          variant={means === way.canonical ? "solid" : "outline"}
          aria-pressed={means === way.canonical}
          onClick={() => onMeans(way.canonical)}
        >
          {way.reads}: {decimal(way.totalStops, 1)} stops
        </Button>
      ))}
    </Flex>
  );
}

/** Stops, factor and density of a label. */
export function threeLanguages(read: Schemas["LabelAnswer"]): string {
  const range =
    read.maxStops === undefined
      ? decimal(read.stops, 1)
      : `${decimal(read.minStops, 1)} to ${decimal(read.maxStops, 1)}`;
  const polariser = read.polariserStops ? ` and ${decimal(read.polariserStops, 1)} for the polariser` : "";
  if (read.kind === "clear") return "clear filter, 0 stops";
  return `${range} stops${polariser} · factor ${localNumber(significant(read.factor, 3))} · density ${decimal(read.density, 1)}`;
}
