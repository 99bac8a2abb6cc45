import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { zodResolver } from "@hookform/resolvers/zod";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Controller, type FieldPath, useForm } from "react-hook-form";
import { z } from "zod";
import { api, Problem, type Schemas, unwrap } from "../../api/client";
import { benchQuery, camerasQuery } from "../../api/queries";
import { TextField } from "../../lib/TextField";

/** What is typed; the server judges the values, this only asks that numbers are numbers. */
const numeric = z
  .string()
  .refine((text) => text.trim() !== "" && Number.isFinite(Number(text.replace(",", "."))), "a number");
const shape = z.object({
  name: z.string(),
  aperture: numeric,
  isoBase: numeric,
  isoCeiling: numeric,
  rates: z.string(),
  steps: z.string(),
});
type Typed = z.infer<typeof shape>;

const LABELS: Record<keyof Typed, { label: string; helper?: string; width: string }> = {
  name: { label: "Name", width: "260px" },
  aperture: { label: "Aperture (f-number)", width: "150px" },
  isoBase: { label: "Base ISO", width: "110px" },
  isoCeiling: { label: "Highest usable ISO", width: "150px" },
  rates: { label: "Frame rates", helper: "25, 50, 59.94", width: "200px" },
  steps: { label: "Shutter steps its menu offers", helper: "1/50, 1/60, … or nothing for any", width: "100%" },
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
  };
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
        const field = fault.field.replace(/\[.*$/, "") as FieldPath<Typed>;
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
                render={({ field, fieldState }) => (
                  <TextField
                    label={LABELS[key].label}
                    helper={LABELS[key].helper}
                    value={field.value}
                    onChange={field.onChange}
                    onBlur={field.onBlur}
                    fault={fieldState.error?.message}
                  />
                )}
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
