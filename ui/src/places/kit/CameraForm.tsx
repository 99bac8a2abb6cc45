import { Button, Flex, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type FieldValues, useForm, useWatch } from "react-hook-form";
import { api, unwrap } from "../../api/client";
import { archetypesQuery, camerasQuery, presetsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Fields } from "../../lib/form/Fields";
import { FormEnd } from "../../lib/form/FormEnd";
import { tidy } from "../../lib/form/formats";
import { KnownFields } from "../../lib/form/KnownFields";
import { useKept } from "../../lib/form/useKept";
import { ALWAYS, GROUPS, PATHS, SPECS } from "./cameraFields";

type Camera = Schemas["StoredCameraFields"];

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

/** Asks for one field of a camera, where it is needed. */
export function CameraQuestion({
  camera,
  path,
  onDone,
}: {
  camera: Schemas["StoredCamera"];
  path: string;
  onDone: () => void;
}) {
  return <Sheet start={camera} camera={camera} only={path} onDone={onDone} />;
}

interface SheetProps {
  start: Camera;
  camera?: Schemas["StoredCamera"];
  /** The one field that is asked for; all of them by default. */
  only?: string;
  onDone?: (() => void) | undefined;
}

function Sheet({ start, camera, only, onDone }: SheetProps) {
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
  const from = {
    of: sources ?? {},
    prefix: "",
    onChange: (next: Record<string, string>) => form.setValue("sources", next),
  };
  return (
    <form
      onSubmit={form.handleSubmit((typed) => presets && save.mutate(bodyOf(typed as Camera, presets)))}
      noValidate
      aria-label={camera ? `Edit ${camera.name}` : "Add a camera"}
    >
      <Stack gap="3">
        {only ? (
          <Fields control={form.control} specs={SPECS.filter((s) => s.path === only)} sources={from} />
        ) : (
          <KnownFields control={form.control} groups={GROUPS} start={start} always={ALWAYS} sources={from} />
        )}
        <FormEnd label={camera ? "Save" : "Add camera"} isBusy={save.isPending} error={save.error} onCancel={onDone} />
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
