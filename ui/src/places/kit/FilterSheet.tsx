import { Button, Flex, Heading, Stack, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Controller, type FieldValues, useForm } from "react-hook-form";
import { api, unwrap } from "../../api/client";
import { filtersQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { FLARE_GRADES } from "../../lib/flare";
import { type FieldSpec, Fields } from "../../lib/form/Fields";
import { FormEnd } from "../../lib/form/FormEnd";
import { marks, number, span, text, tidy } from "../../lib/form/formats";
import { useKept } from "../../lib/form/useKept";
import { SelectField } from "../../lib/SelectField";
import { Sheet } from "../../lib/Sheet";
import { TextField } from "../../lib/TextField";
import { GoesOn } from "./GoesOn";
import { MOUNTS } from "./RigForm";

type Filter = Schemas["ShownFilter"];
type FilterFields = Schemas["StoredFilterFields"];
type Happening = Schemas["StoredHappening"];

const amount = (path: string, label: string, w = "150px", helper?: string): FieldSpec => ({
  path,
  label,
  w,
  format: number(),
  ...(helper && { helper }),
});

const GROUPS: { heading: string; specs: readonly FieldSpec[] }[] = [
  {
    heading: "What it says, and what was measured",
    specs: [
      { path: "label", label: "Label", w: "160px", format: text },
      { path: "name", label: "What you call it", w: "200px", format: text },
      amount("measuredStops", "Measured stops"),
      amount("stdErrStops", "Standard error"),
      {
        path: "ring",
        label: "Marks on its ring",
        w: "100%",
        format: marks,
        helper: "of a variable filter: min = 1.2, 3 = 3.1",
      },
      amount("cornerStops", "Vignetting, stops"),
      amount("castStops", "Colour shift, stops", "150px", "+ towards red"),
      {
        path: "flareText",
        label: "Flare against a light",
        w: "180px",
        options: { "": "not judged", ...Object.fromEntries(FLARE_GRADES.map((name, i) => [String(i), name])) },
      },
      amount("sharpnessLost", "Sharpness lost, %"),
    ],
  },
  {
    heading: "Its body",
    specs: [
      { path: "body.mount", label: "Held by", w: "150px", options: MOUNTS },
      { path: "body.seatMm", label: "Seat, mm", w: "210px", format: span, helper: "20.02 to 20.05" },
      amount("body.outerMm", "Outer diameter, mm"),
      amount("body.clearMm", "Clear diameter, mm"),
      amount("body.thicknessMm", "Thickness, mm"),
      { ...amount("weightG", "Mass"), quantity: "mass" },
      { path: "needsBase", label: "Only on another filter", w: "160px", isFlag: true },
      { path: "closed", label: "Takes nothing on it", w: "160px", isFlag: true },
    ],
  },
  {
    heading: "Where it is",
    specs: [
      { path: "slot", label: "Slot in the case", w: "150px", format: text },
      { path: "set", label: "Set it came in", w: "200px", format: text },
      amount("price", "Price"),
      {
        path: "condition",
        label: "Condition",
        w: "160px",
        options: { "": "not looked at", good: "good", worn: "worn", scratched: "scratched", broken: "broken" },
      },
    ],
  },
];
const PATHS = [...GROUPS.flatMap((g) => g.specs.map((s) => s.path)), "flare", "history"];

interface FilterSheetProps {
  filter: Filter;
  cameras: readonly Schemas["StoredCamera"][];
  onClose: () => void;
}

/** Everything its owner says of one filter. */
export function FilterSheet({ filter, cameras, onClose }: FilterSheetProps) {
  const queries = useQueryClient();
  const start = fieldsOf(filter);
  const form = useForm<FieldValues>({
    defaultValues: {
      ...start,
      flareText: start.flare === undefined ? "" : String(start.flare),
      history: start.history ?? [],
    },
  });
  const save = useKept({
    save: (body: FilterFields) =>
      unwrap(
        api.PUT("/api/filters/{id}", { params: { path: { id: filter.id }, query: { version: filter.version } }, body }),
      ),
    onSaved: () => {
      queries.invalidateQueries({ queryKey: filtersQuery.queryKey });
      queries.invalidateQueries({ queryKey: ["bench"] });
      onClose();
    },
    setError: form.setError,
    paths: PATHS,
  });
  const submit = ({ flareText, ...typed }: FieldValues) => {
    const flare = flareText ? Number(flareText) : undefined;
    save.mutate({ ...tidy({ ...typed, flare }), label: typed.label ?? "", cameras: typed.cameras } as FilterFields);
  };
  return (
    <Sheet title={filter.title} isOpen onOpen={(isOpen) => isOpen || onClose()} size="xl">
      <form noValidate aria-label={`Edit ${filter.title}`} onSubmit={form.handleSubmit(submit)}>
        <Stack gap="4">
          {GROUPS.map(({ heading, specs }) => (
            <Stack key={heading} gap="2" role="group" aria-label={heading}>
              <Heading as="h3" size="sm" color="muted">
                {heading}
              </Heading>
              <Fields control={form.control} specs={specs} />
            </Stack>
          ))}
          <Controller
            control={form.control}
            name="cameras"
            render={({ field }) => <GoesOn cameras={cameras} value={field.value} onChange={field.onChange} />}
          />
          <Controller
            control={form.control}
            name="history"
            render={({ field }) => <History value={field.value} onChange={field.onChange} />}
          />
          <FormEnd label="Save" isBusy={save.isPending} error={save.error} onCancel={onClose} />
        </Stack>
      </form>
    </Sheet>
  );
}

const WHAT: Record<Happening["what"], string> = {
  cleaned: "cleaned",
  dropped: "dropped",
  lost: "lost",
  found: "found again",
  replaced: "replaced",
  bought: "bought",
  measured: "measured",
};

interface HistoryProps {
  value: readonly Happening[];
  onChange: (history: Happening[]) => void;
}

/** What happened to a filter: a drop or a new pane makes its trials worthless, a lost one is not offered. */
function History({ value, onChange }: HistoryProps) {
  const [what, setWhat] = useState<Happening["what"]>("cleaned");
  const [note, setNote] = useState("");
  return (
    <Stack gap="2" role="group" aria-label="History">
      <Heading as="h3" size="sm" color="muted">
        History
      </Heading>
      {value.map((h, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two entries may be alike, and none is reordered.
        <Flex key={i} gap="3" align="center">
          <Text flex="1">
            {h.at.slice(0, 10)}: {WHAT[h.what]}
            {h.note && `, ${h.note}`}
          </Text>
          <Button size="sm" variant="ghost" onClick={() => onChange(value.filter((_, j) => j !== i))}>
            Remove
          </Button>
        </Flex>
      ))}
      <Flex gap="2" align="flex-end" wrap="wrap">
        <SelectField
          label="Today it was"
          w="150px"
          maxW="150px"
          value={what}
          options={Object.entries(WHAT).map(([v, name]) => ({ value: v, name }))}
          onChange={(v) => setWhat(v as Happening["what"])}
        />
        <TextField label="Note on it" w="220px" value={note} onChange={setNote} />
        <Button
          variant="outline"
          onClick={() => {
            onChange([...value, { at: new Date().toISOString(), what, ...(note && { note }) }]);
            setNote("");
          }}
        >
          Add to its history
        </Button>
      </Flex>
      <Text color="muted" fontSize="sm">
        After a drop or a new pane it counts as not tested; a lost one is not offered until it is found.
      </Text>
    </Stack>
  );
}

/** The fields of a filter that its owner states. */
export function fieldsOf(filter: Filter): FilterFields {
  const {
    id: _,
    version: _v,
    createdAt: _c,
    updatedAt: _u,
    deletedAt: _d,
    title: _t,
    reads: _r,
    counts: _k,
    takesStops: _s,
    open: _o,
    ...fields
  } = filter;
  return fields;
}
