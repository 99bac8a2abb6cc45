import { Field, Flex, NativeSelect, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/client";
import { Choice } from "../../lib/Choice";
import type { FaultOf } from "../../lib/faults";
import { angle, signed } from "../../lib/format";
import { TextField } from "../../lib/TextField";
import type { Answer, Bench } from "./draft";

type Look = Schemas["ShotLook"];

const TARGETS = [
  { value: "180°", name: "180°" },
  { value: "360°", name: "360°" },
  { value: "90°", name: "90°" },
] as const;

interface LookFormProps {
  look: Look;
  bench: Bench;
  cameras: readonly Schemas["StoredCamera"][];
  /** What the camera makes of the wish, in words. */
  offered: string;
  faultOf: FaultOf;
  onChange: (look: Look) => void;
  onCamera: (id: string) => void;
}

/** The camera, its frame rate and the shutter wanted of it. */
export function LookForm({ look, bench, cameras, offered, faultOf, onChange, onCamera }: LookFormProps) {
  return (
    <Stack gap="3">
      <Field.Root>
        <Field.Label color="muted">Camera</Field.Label>
        <NativeSelect.Root>
          <NativeSelect.Field
            h="44px"
            bg="panel"
            borderColor="edge"
            value={bench.camera.id}
            onChange={(e) => onCamera(e.target.value)}
          >
            {cameras.some((c) => c.id === bench.camera.id) || (
              <option value={bench.camera.id}>{bench.camera.name} (deleted)</option>
            )}
            {cameras.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </NativeSelect.Field>
          <NativeSelect.Indicator />
        </NativeSelect.Root>
      </Field.Root>
      <Flex gap="3" wrap="wrap">
        <Choice
          label="Frames per second"
          options={bench.camera.rates.map((rate) => ({ value: rate, name: rate }))}
          value={look.fps}
          onChange={(fps) => onChange({ ...look, fps })}
        />
        <TextField
          label="or another"
          w="96px"
          value={look.fps}
          fault={faultOf("look.fps")}
          onChange={(fps) => onChange({ ...look, fps })}
        />
      </Flex>
      <Flex gap="3" wrap="wrap">
        <Choice
          label="Shutter target"
          options={TARGETS}
          value={TARGETS.find((t) => t.value === look.target)?.value}
          onChange={(target) => onChange({ ...look, target })}
        />
        <TextField
          label="or your own"
          w="96px"
          value={look.target}
          fault={faultOf("look.target")}
          onChange={(target) => onChange({ ...look, target })}
        />
      </Flex>
      <Text>{offered}</Text>
    </Stack>
  );
}

/** What the camera makes of the wish: wanted, offered, difference. */
export function offeredWords({ shutter }: Answer): string {
  const offered = `${shutter.text}${shutter.angleDeg ? ` (${angle(shutter.angleDeg)})` : ""}`;
  if (Math.abs(shutter.snapStops) < 0.005) return `The camera shoots at ${offered}.`;
  return `Wanted 1/${(1 / shutter.idealS).toFixed(1)}, the camera offers ${offered}: ${signed2(shutter.snapStops)} stops.`;
}

const signed2 = (value: number): string =>
  Math.abs(value) < 0.05 ? value.toFixed(2).replace("-", "−") : signed(value);
