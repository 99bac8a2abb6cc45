import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { zodResolver } from "@hookform/resolvers/zod";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Controller, type FieldPath, useForm } from "react-hook-form";
import { z } from "zod";
import { api, Problem, type Schemas, unwrap } from "../../api/client";
import { benchQuery, camerasQuery } from "../../api/queries";
import { SelectField } from "../../lib/SelectField";
import { TextField } from "../../lib/TextField";

/** What is typed; the server judges the values, this only asks that numbers are numbers. */
const numeric = z
  .string()
  .refine((text) => text.trim() !== "" && Number.isFinite(Number(text.replace(",", "."))), "a number");
const optional = z
  .string()
  .refine((text) => text.trim() === "" || Number.isFinite(Number(text.replace(",", "."))), "a number, or nothing");
const shape = z.object({
  name: z.string(),
  aperture: numeric,
  isoBase: numeric,
  isoCeiling: numeric,
  rates: z.string(),
  steps: z.string(),
  width: optional,
  hfov: optional,
  projection: z.enum(["rectilinear", "equidistant"]),
  stabiliser: z.enum(["", "none", "electronic", "gimbal", "gimbal+electronic", "post"]),
  readoutMs: optional,
  automatic: z.enum(["", "shutter", "iso"]),
  maxTilt: optional,
  flies: z.enum(["no", "yes"]),
});
type Typed = z.infer<typeof shape>;

interface Label {
  label: string;
  helper?: string;
  width: string;
  /** For a field that is chosen, not typed. */
  options?: Record<string, string>;
}

const LABELS: Record<keyof Typed, Label> = {
  name: { label: "Name", width: "260px" },
  aperture: { label: "Aperture (f-number)", width: "150px" },
  isoBase: { label: "Base ISO", width: "110px" },
  isoCeiling: { label: "Highest usable ISO", width: "150px" },
  rates: { label: "Frame rates", helper: "25, 50, 59.94", width: "200px" },
  steps: { label: "Shutter steps its menu offers", helper: "1/50, 1/60, … or nothing for any", width: "100%" },
  width: { label: "Frame width, px", helper: "3840", width: "150px" },
  hfov: { label: "Field of view, °", helper: "horizontal", width: "150px" },
  projection: {
    label: "Projection",
    width: "170px",
    options: { rectilinear: "straight lines", equidistant: "fisheye" },
  },
  stabiliser: {
    label: "Stabiliser",
    width: "200px",
    options: {
      "": "not known",
      none: "none",
      electronic: "electronic",
      gimbal: "gimbal",
      "gimbal+electronic": "gimbal and electronic",
      post: "later, from gyro",
    },
  },
  readoutMs: { label: "Sensor readout, ms", width: "160px" },
  automatic: {
    label: "On automatic",
    width: "200px",
    options: { "": "not known", shutter: "moves the shutter first", iso: "raises ISO first" },
  },
  maxTilt: { label: "Tilts up with glass on, °", width: "190px" },
  flies: { label: "Rides on a craft", width: "140px", options: { no: "no", yes: "yes" } },
};

/** Where the server's name of a field stands in the form. */
const FIELDS: Record<string, keyof Typed> = {
  "profile.lens.widthPx": "width",
  "profile.lens.hfovDeg": "hfov",
  "profile.readoutS": "readoutMs",
  "profile.maxTiltDeg": "maxTilt",
};

const list = (text: string): string[] => text.split(/[\s,;]+/).filter(Boolean);
const number = (text: string): number => Number(text.replace(",", "."));

function typedOf(camera: Schemas["StoredCamera"] | undefined): Typed {
  return {
    name: camera?.name ?? "",
    aperture: String(camera?.aperture ?? ""),
    isoBase: String(camera?.isoBase ?? 100),
    isoCeiling: String(camera?.isoCeiling ?? 1600),
    rates: camera?.rates.join(", ") ?? "24, 25, 30, 50, 60",
    steps: camera?.steps.join(", ") ?? "",
    ...profileTyped(camera?.profile),
  };
}

function profileTyped(profile: Schemas["CameraProfile"] | undefined) {
  const text = (value: number | undefined) => (value === undefined ? "" : String(value));
  return {
    width: text(profile?.lens?.widthPx),
    hfov: text(profile?.lens?.hfovDeg),
    projection: profile?.lens?.projection ?? "rectilinear",
    stabiliser: profile?.stabiliser ?? "",
    readoutMs: text(profile?.readoutS && Number((profile.readoutS * 1000).toFixed(3))),
    automatic: profile?.automatic?.priority ?? "",
    maxTilt: text(profile?.maxTiltDeg),
    flies: profile?.flies ? "yes" : "no",
  } as const;
}

/** The profile as typed, over what the form does not show; undefined while nothing is known. */
function profileOf(typed: Typed, before: Schemas["CameraProfile"] | undefined): Schemas["CameraProfile"] | undefined {
  const { lens: _l, stabiliser: _s, readoutS: _r, automatic: _a, maxTiltDeg: _m, flies: _f, ...rest } = before ?? {};
  const hasLens = typed.width.trim() !== "" || typed.hfov.trim() !== "";
  const profile: Schemas["CameraProfile"] = {
    ...rest,
    ...(hasLens && {
      lens: { widthPx: number(typed.width), hfovDeg: number(typed.hfov), projection: typed.projection },
    }),
    ...(typed.stabiliser && { stabiliser: typed.stabiliser }),
    ...(typed.readoutMs.trim() && { readoutS: number(typed.readoutMs) / 1000 }),
    ...(typed.automatic && { automatic: { ...before?.automatic, priority: typed.automatic } }),
    ...(typed.maxTilt.trim() && { maxTiltDeg: number(typed.maxTilt) }),
    ...(typed.flies === "yes" && { flies: true }),
  };
  return Object.keys(profile).length > 0 ? profile : undefined;
}

interface CameraFormProps {
  camera?: Schemas["StoredCamera"];
  isFirst?: boolean;
  onDone?: () => void;
}

/** Adds a camera, or changes one. */
export function CameraForm({ camera, isFirst, onDone }: CameraFormProps) {
  const queries = useQueryClient();
  const form = useForm<Typed>({ resolver: zodResolver(shape), defaultValues: typedOf(camera) });
  const save = useMutation({
    mutationFn: (typed: Typed) => {
      const body: Schemas["StoredCameraFields"] = {
        name: typed.name.trim(),
        aperture: number(typed.aperture),
        isoBase: number(typed.isoBase),
        isoCeiling: number(typed.isoCeiling),
        rates: list(typed.rates),
        steps: list(typed.steps),
        mounted: camera?.mounted ?? [],
        ...(camera?.notes && { notes: camera.notes }),
        ...(profileOf(typed, camera?.profile) && { profile: profileOf(typed, camera?.profile) }),
      };
      return unwrap(
        camera
          ? api.PUT("/api/cameras/{id}", {
              params: { path: { id: camera.id }, query: { version: camera.version } },
              body,
            })
          : api.POST("/api/cameras", { body }),
      );
    },
    onSuccess: (saved) => {
      queries.invalidateQueries({ queryKey: camerasQuery.queryKey });
      queries.invalidateQueries({ queryKey: benchQuery(saved.id).queryKey });
      if (!camera) form.reset(typedOf(undefined));
      onDone?.();
    },
    onError: (error) => {
      if (!(error instanceof Problem)) return;
      for (const fault of error.faults) {
        const name = fault.field.replace(/\[.*$/, "");
        const field: FieldPath<Typed> = FIELDS[name] ?? (name as FieldPath<Typed>);
        if (field in LABELS)
          form.setError(field, { message: fault.value ? `${String(fault.value)}: ${fault.allowed}` : fault.allowed });
      }
    },
  });
  return (
    <form
      onSubmit={form.handleSubmit((typed) => save.mutate(typed))}
      noValidate
      aria-label={camera ? `Edit ${camera.name}` : "Add a camera"}
    >
      <Stack gap="2">
        {isFirst && <Text>Start with one camera. Most values stand in its data sheet.</Text>}
        <Flex gap="3" wrap="wrap">
          {(Object.keys(LABELS) as (keyof Typed)[]).map((key) => (
            <Flex key={key} w={LABELS[key].width} maxW="100%">
              <Controller
                control={form.control}
                name={key}
                render={({ field, fieldState }) =>
                  LABELS[key].options ? (
                    <SelectField
                      label={LABELS[key].label}
                      value={field.value}
                      options={Object.entries(LABELS[key].options).map(([value, name]) => ({ value, name }))}
                      onChange={field.onChange}
                    />
                  ) : (
                    <TextField
                      label={LABELS[key].label}
                      helper={LABELS[key].helper}
                      value={field.value}
                      onChange={field.onChange}
                      onBlur={field.onBlur}
                      fault={fieldState.error?.message}
                    />
                  )
                }
              />
            </Flex>
          ))}
        </Flex>
        {save.error && (
          <Text color="breaks" role="alert">
            {save.error.message}
          </Text>
        )}
        <Flex gap="2">
          <Button type="submit" loading={save.isPending}>
            {camera ? "Store" : "Add camera"}
          </Button>
          {onDone && (
            <Button variant="ghost" onClick={onDone}>
              Cancel
            </Button>
          )}
        </Flex>
      </Stack>
    </form>
  );
}
