import { Button, Flex, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type FieldValues, useForm, useWatch } from "react-hook-form";
import { api, type Schemas, unwrap } from "../../api/client";
import { archetypesQuery, camerasQuery, presetsQuery } from "../../api/queries";
import type { FieldSpec } from "../../lib/form/Fields";
import { FormEnd } from "../../lib/form/FormEnd";
import { number, numbers, text, tidy, words } from "../../lib/form/formats";
import { KnownFields } from "../../lib/form/KnownFields";
import { useKept } from "../../lib/form/useKept";
import { RECIPE } from "./recipeFields";

type Camera = Schemas["StoredCameraFields"];

const EXPOSURE: readonly FieldSpec[] = [
  { path: "name", label: "Name", w: "260px", format: text },
  { path: "aperture", label: "Aperture (f-number)", w: "240px", format: number(), source: "printed" },
  { path: "tNumber", label: "T-number, if known", w: "240px", format: number(), source: "measured" },
  { path: "isoBase", label: "Base ISO", w: "200px", format: number(), source: "printed" },
  { path: "isoCeiling", label: "Highest usable ISO", w: "240px", format: number(), source: "measured" },
  { path: "rates", label: "Frame rates", helper: "25, 50, 59.94", w: "300px", format: words, source: "printed" },
  { path: "frameSizes", label: "Frame sizes", helper: "the usual first", w: "300px", format: words, source: "printed" },
  {
    path: "steps",
    label: "Shutter steps its menu offers",
    helper: "1/50, 1/60, … or nothing for any",
    w: "100%",
    format: words,
    source: "printed",
  },
];

const PICTURE: readonly FieldSpec[] = [
  { path: "profile.lens.hfovDeg", label: "Field of view, °", w: "230px", format: number(), source: "printed" },
  {
    path: "profile.lens.projection",
    label: "Projection",
    w: "250px",
    options: { rectilinear: "straight lines", equidistant: "fisheye" },
    source: "printed",
  },
  { path: "profile.focalMm", label: "True focal length, mm", w: "240px", format: number(), source: "printed" },
  {
    path: "profile.stabiliser",
    label: "Stabiliser",
    w: "280px",
    options: {
      "": "not known",
      none: "none",
      electronic: "electronic",
      gimbal: "gimbal",
      "gimbal+electronic": "gimbal and electronic",
      post: "later, from gyro",
    },
    source: "printed",
  },
  { path: "profile.cropShare", label: "It crops away, %", w: "220px", format: number(100), source: "measured" },
  {
    path: "profile.trialS",
    label: "Slowest that held, 1/s",
    helper: "in a stepped trial",
    w: "290px",
    source: "measured",
    format: {
      ...number(),
      write: (s: number | undefined) => (s === undefined ? "" : String(Number((1 / s).toPrecision(6)))),
      read: (typed: string) => {
        const n = number().read(typed);
        return typeof n === "number" && n > 0 ? 1 / n : n;
      },
    },
  },
  {
    path: "profile.trialShakeDegS",
    label: "Shake of that trial, °/s",
    helper: "walking calmly, unless you say",
    w: "270px",
    format: number(),
    source: "measured",
  },
  {
    path: "profile.viewsDeg",
    label: "Other fields of view, °",
    helper: "that it can be switched to",
    w: "250px",
    format: numbers,
    source: "printed",
  },
  { path: "profile.readoutS", label: "Sensor readout, ms", w: "230px", format: number(1000), source: "measured" },
  {
    path: "profile.automatic.priority",
    label: "On automatic",
    w: "290px",
    options: { "": "not known", shutter: "moves the shutter first", iso: "raises ISO first" },
    source: "measured",
  },
  { path: "profile.maxTiltDeg", label: "Tilts up with glass on, °", w: "270px", format: number(), source: "measured" },
  { path: "profile.flies", label: "Rides on a craft", w: "140px", isFlag: true },
  { path: "massG", label: "Mass, g", w: "200px", format: number(), source: "printed" },
  { path: "packMin", label: "A battery lasts, min", w: "250px", format: number(), source: "measured" },
  { path: "sealedPort", label: "Sealed port", w: "130px", isFlag: true },
];

const GROUPS = [
  { heading: "Exposure", specs: EXPOSURE },
  { heading: "Picture and motion", specs: PICTURE },
  { heading: "Settings recipe", specs: RECIPE },
];
/** What a camera cannot be without. */
const ALWAYS = ["name", "aperture", "isoBase", "isoCeiling", "rates"];
const PATHS = GROUPS.flatMap((g) => g.specs.map((s) => s.path));

/** What is known of a camera of which nothing is said yet. */
const nothing = ({ isoBase, isoCeiling, rates }: Schemas["Starts"]): Camera => ({
  name: "",
  aperture: Number.NaN,
  isoBase,
  isoCeiling,
  rates,
  steps: [],
  mounted: [],
});

interface CameraFormProps {
  camera?: Schemas["StoredCamera"];
  isFirst?: boolean;
  onDone?: () => void;
}

/** Adds a camera, from an archetype or from nothing, or changes one. */
export function CameraForm({ camera, isFirst, onDone }: CameraFormProps) {
  const { data: archetypes } = useQuery({ ...archetypesQuery, enabled: !camera });
  const { data: presets } = useQuery(presetsQuery);
  const [key, startFrom] = useState("");
  if (camera) return <Sheet start={camera} camera={camera} onDone={onDone} />;
  if (!archetypes || !presets) return <Skeleton h="200px" />;
  const chosen = archetypes.find((a) => a.key === key);
  const start: Camera = chosen ? { ...chosen.camera, name: "" } : nothing(presets.starts);
  return (
    <Stack gap="3">
      <Text>
        {isFirst && "Start with one camera. "}
        What is it like? The values of a kind are rough and count as assumed until you say better: change what differs.
      </Text>
      <Flex gap="2" wrap="wrap" role="group" aria-label="What it is like">
        {archetypes.map((a) => (
          <Button
            key={a.key}
            variant={start.archetype === a.key ? "solid" : "outline"}
            aria-pressed={start.archetype === a.key}
            onClick={() => startFrom(a.key)}
          >
            {a.name}
          </Button>
        ))}
        <Button
          variant={start.archetype ? "outline" : "solid"}
          aria-pressed={!start.archetype}
          onClick={() => startFrom("")}
        >
          None of these
        </Button>
      </Flex>
      <Sheet key={start.archetype ?? ""} start={start} onDone={onDone} />
    </Stack>
  );
}

interface SheetProps {
  start: Camera;
  camera?: Schemas["StoredCamera"];
  onDone?: (() => void) | undefined;
}

function Sheet({ start, camera, onDone }: SheetProps) {
  const queries = useQueryClient();
  const form = useForm<FieldValues>({ defaultValues: fieldsOf(start) });
  const { data: presets } = useQuery(presetsQuery);
  const sources = useWatch({ control: form.control, name: "sources" });
  const save = useKept({
    save: (body: Camera) =>
      unwrap(
        camera
          ? api.PUT("/api/cameras/{id}", {
              params: { path: { id: camera.id }, query: { version: camera.version } },
              body,
            })
          : api.POST("/api/cameras", { body }),
      ),
    onSaved: () => {
      queries.invalidateQueries({ queryKey: camerasQuery.queryKey });
      queries.invalidateQueries({ queryKey: ["bench"] });
      if (!camera) form.reset(fieldsOf(start));
      onDone?.();
    },
    setError: form.setError,
    paths: PATHS,
  });
  return (
    <form
      onSubmit={form.handleSubmit((typed) => presets && save.mutate(bodyOf(typed as Camera, presets)))}
      noValidate
      aria-label={camera ? `Edit ${camera.name}` : "Add a camera"}
    >
      <Stack gap="3">
        <KnownFields
          control={form.control}
          groups={GROUPS}
          start={start}
          always={ALWAYS}
          sources={{ of: sources ?? {}, prefix: "", onChange: (next) => form.setValue("sources", next) }}
        />
        <FormEnd label={camera ? "Store" : "Add camera"} isBusy={save.isPending} error={save.error} onCancel={onDone} />
      </Stack>
    </form>
  );
}

/** The fields of a camera that its owner states. */
function fieldsOf(camera: Camera): Camera {
  const {
    id: _i,
    version: _v,
    createdAt: _c,
    updatedAt: _u,
    deletedAt: _d,
    ...fields
  } = camera as Schemas["StoredCamera"];
  return Number.isNaN(fields.aperture) ? ({ ...fields, aperture: undefined } as unknown as Camera) : fields;
}

/** What is sent: a lens is flat unless it says otherwise; the server draws it on the usual frame. */
function bodyOf(typed: Camera, { widthPx }: Schemas["Presets"]): Camera {
  const body = tidy(typed);
  if (body.profile?.lens) {
    body.profile.lens = {
      ...body.profile.lens,
      widthPx: body.profile.lens.widthPx ?? widthPx,
      projection: body.profile.lens.projection ?? "rectilinear",
    };
    if (body.profile.lens.hfovDeg === undefined) delete body.profile.lens;
  }
  return {
    ...body,
    name: typed.name?.trim() ?? "",
    rates: typed.rates ?? [],
    steps: typed.steps ?? [],
    mounted: typed.mounted ?? [],
  };
}
