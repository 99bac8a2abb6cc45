import { Button, Stack, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { type FieldValues, useForm, useWatch } from "react-hook-form";
import { api, unwrap } from "../../api/client";
import type { Schemas } from "../../api/schemas";
import type { FieldSpec } from "../../lib/form/Fields";
import { FormEnd } from "../../lib/form/FormEnd";
import { number, span, text, tidy } from "../../lib/form/formats";
import { KnownFields } from "../../lib/form/KnownFields";
import { useKept } from "../../lib/form/useKept";
import { useDelete } from "../../lib/useDelete";
import { COMPARED, CRAFT, RATES } from "./craftFields";
import { RatesDrawn } from "./RatesDrawn";
import { RECIPE } from "./recipeFields";

type Rig = Schemas["StoredRigFields"];

export const MOUNTS: Record<string, string> = {
  "": "not known",
  "push-on": "push-on",
  snap: "snap",
  twist: "twist",
  magnet: "magnet",
  adhesive: "adhesive",
  clip: "clip",
  thread: "thread",
};

const measure = (path: string, label: string, w: string, source: FieldSpec["source"] = "measured"): FieldSpec => ({
  path: `measures.${path}`,
  label,
  w,
  format: number(),
  ...(source && { source }),
});

const SPECS: readonly FieldSpec[] = [
  { path: "name", label: "Name of the rig", w: "240px", format: text, helper: "in the cage, bare" },
  {
    path: "housing",
    label: "The camera is",
    w: "150px",
    options: { bare: "bare", frame: "in a frame", cage: "in a cage", case: "in a case" },
  },
  {
    path: "way",
    label: "Which way round",
    w: "160px",
    options: { upright: "upright", "upside-down": "upside down", sideways: "sideways", reversed: "facing back" },
  },
  { path: "measures.mount", label: "Takes a filter by", w: "240px", options: MOUNTS, source: "printed" },
  {
    path: "measures.barrelMm",
    label: "Barrel, mm",
    w: "260px",
    format: span,
    source: "measured",
    helper: "least to most: 21.02 to 21.04",
  },
  measure("pupilDepthMm", "Pupil behind the barrel's front, mm", "310px", "assumed"),
  measure("foldMm", "Room when folded, mm", "240px"),
  measure("tiltUpDeg", "Tilts up bare, °", "220px"),
  measure("tiltDownDeg", "Tilts down bare, °", "220px"),
  { ...measure("payloadG", "Its gimbal carries", "240px", "printed"), quantity: "mass" },
  measure("filterArmMm", "Axis to the filter, mm", "240px"),
  measure("counterArmMm", "Axis to a counterweight, mm", "270px"),
  measure("accelG", "Peak g in use", "210px", "assumed"),
  { ...measure("speedMps", "Fastest in use", "230px", "assumed"), quantity: "speed" },
  {
    path: "measures.flown",
    label: "Sticks released",
    w: "280px",
    options: { "": "does not fly, or not known", level: "levels", manual: "keeps rotating" },
  },
  { ...measure("bareG", "All of it without a filter", "260px"), quantity: "mass" },
  { ...measure("limitG", "Limit of its class as you know it", "300px", "printed"), quantity: "mass" },
];
const GROUPS = [
  { heading: "The camera as it is held", specs: SPECS },
  { heading: "How it moves", specs: CRAFT },
  { heading: "The pilot's rates", specs: RATES },
  { heading: "Other rates, laid over them", specs: COMPARED },
  { heading: "Set otherwise than on the camera as it usually is", specs: RECIPE },
];
/** What every rig is asked for. */
const ALWAYS = ["name", "housing", "way", "measures.mount", "craft.activity"];
const PATHS = GROUPS.flatMap((g) => g.specs.map((s) => s.path));

interface RigFormProps {
  cameraId: string;
  rig?: Schemas["StoredRig"];
  onDone: () => void;
}

/** Adds a way in which a camera is held, or changes one. */
export function RigForm({ cameraId, rig, onDone }: RigFormProps) {
  const queries = useQueryClient();
  const start: FieldValues = rig
    ? { ...rig, sources: rig.sources ?? {} }
    : { name: "", housing: "frame", way: "upright", measures: {}, sources: {} };
  const { name, housing, way, measures, craft, recipe } = start;
  const form = useForm<FieldValues>({
    defaultValues: { name, housing, way, measures, craft, recipe, sources: start.sources },
  });
  const sources = useWatch({ control: form.control, name: "sources" });
  const save = useKept({
    save: (body: Rig) =>
      unwrap(
        rig
          ? api.PUT("/api/rigs/{id}", { params: { path: { id: rig.id }, query: { version: rig.version } }, body })
          : api.POST("/api/rigs", { body }),
      ),
    onSaved: () => {
      queries.invalidateQueries({ queryKey: ["bench"] });
      onDone();
    },
    setError: form.setError,
    paths: PATHS,
  });
  return (
    <form
      noValidate
      aria-label={rig ? `Edit the rig ${rig.name}` : "Add a rig"}
      onSubmit={form.handleSubmit((typed) => {
        const body = tidy(typed) as Rig;
        save.mutate({ ...body, cameraId, name: body.name ?? "", measures: body.measures ?? {} });
      })}
    >
      <Stack gap="3">
        <Text color="muted">
          Measure with a caliper, at the widest and the narrowest. What you leave out is not judged. The class limit is
          yours to state: local rules decide.
        </Text>
        <KnownFields
          control={form.control}
          groups={GROUPS}
          start={start}
          always={ALWAYS}
          sources={{ of: sources ?? {}, prefix: "measures.", onChange: (next) => form.setValue("sources", next) }}
        />
        <RatesDrawn control={form.control} />
        <FormEnd label={rig ? "Save" : "Add rig"} isBusy={save.isPending} error={save.error} onCancel={onDone}>
          {rig && <DeleteRig rig={rig} onGone={onDone} />}
        </FormEnd>
      </Stack>
    </form>
  );
}

function DeleteRig({ rig, onGone }: { rig: Schemas["StoredRig"]; onGone: () => void }) {
  const remove = useDelete({
    what: `The rig “${rig.name}”`,
    queryKey: ["bench"],
    remove: async () => {
      const gone = await unwrap(
        api.DELETE("/api/rigs/{id}", { params: { path: { id: rig.id }, query: { version: rig.version } } }),
      );
      onGone();
      return gone;
    },
    restore: (version) =>
      unwrap(api.POST("/api/rigs/{id}/restore", { params: { path: { id: rig.id }, query: { version } } })),
  });
  return (
    <Button variant="ghost" color="breaks" ms="auto" onClick={() => remove.mutate()}>
      Delete this rig
    </Button>
  );
}
