import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { presetsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Choice } from "../../lib/Choice";
import type { FaultOf } from "../../lib/faults";
import { angle, signed } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { NumberField } from "../../lib/NumberField";
import { TextField } from "../../lib/TextField";
import type { Answer, Bench, Scene } from "./draft";

type Look = Schemas["ShotLook"];

const SHOWN = [
  { value: "as-shot", name: "Normal speed" },
  { value: "every-frame", name: "Slow motion" },
  { value: "real-time", name: "Real time (frames dropped)" },
  { value: "speed-up", name: "Sped up" },
] as const;

interface LookFormProps {
  look: Look;
  scene: Scene;
  answer: Answer;
  bench: Bench;
  /** What the camera makes of the wish, in words. */
  offered: string;
  /** What the last change of the frame rate did to the target. */
  moved: string | undefined;
  faultOf: FaultOf;
  onChange: (look: Look) => void;
  onScene: (part: Partial<Scene>) => void;
}

/** The frame rate, the shutter wanted, and how the frames are shown. */
export function LookForm(props: LookFormProps) {
  const { look, scene, answer, bench, offered, moved, faultOf, onChange, onScene } = props;
  const { data: presets } = useQuery(presetsQuery);
  return (
    <Stack gap="3">
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
          options={(presets?.targets ?? []).map((value) => ({ value, name: value }))}
          value={presets?.targets.find((t) => t === look.target)}
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
      <Box aria-live="polite" data-testid="offered">
        <Text>{offered}</Text>
        {moved && <Text fontWeight="bold">{moved}</Text>}
      </Box>
      <DeliveryFields {...{ scene, answer, faultOf, onScene }} />
    </Stack>
  );
}

/** How the frames are shown, and the interval of a time-lapse. */
function DeliveryFields({
  scene,
  answer,
  faultOf,
  onScene,
}: Pick<LookFormProps, "scene" | "answer" | "faultOf" | "onScene">) {
  const { data: presets } = useQuery(presetsQuery);
  const { delivery } = scene;
  const { shutter, lapse } = answer;
  return (
    <Flex gap="3" wrap="wrap" align="start">
      <Choice
        label="Shown"
        options={SHOWN}
        value={delivery?.mode ?? "as-shot"}
        onChange={(mode) =>
          onScene({
            delivery:
              mode === "as-shot"
                ? undefined
                : {
                    mode,
                    ...(mode !== "every-frame" && { fps: delivery?.fps ?? Number(presets?.rate) }),
                    ...(mode === "speed-up" && { factor: delivery?.factor ?? presets?.starts.speedUp }),
                  },
          })
        }
      />
      {delivery && delivery.mode !== "every-frame" && (
        <NumberField
          label="Shown at, fps"
          value={delivery.fps}
          fault={faultOf("scene.delivery.fps")}
          onChange={(fps) => onScene({ delivery: { ...delivery, fps } })}
        />
      )}
      {delivery?.mode === "speed-up" && (
        <NumberField
          label="Times faster"
          value={delivery.factor}
          fault={faultOf("scene.delivery.factor")}
          onChange={(factor) => onScene({ delivery: { ...delivery, factor } })}
        />
      )}
      <NumberField
        label="Time-lapse, s between"
        w="170px"
        value={scene.intervalS}
        fault={faultOf("scene.intervalS")}
        onChange={(intervalS) => onScene({ intervalS })}
      />
      <Text alignSelf="end" flexBasis="100%" data-testid="delivered">
        {delivery &&
          shutter.deliveredAngleDeg !== null &&
          `Viewers see an angle of ${angle(shutter.deliveredAngleDeg)}. `}
        {lapse &&
          (lapse.possible ? `${lapse.text} fits into the interval, ${angle(lapse.angleDeg)} of it.` : lapse.why)}
      </Text>
    </Flex>
  );
}

/** What the camera makes of the wish: wanted, offered, difference. */
export function offeredWords({ shutter }: Answer): string {
  const offered = `${shutter.text}${shutter.angleDeg ? ` (${angle(shutter.angleDeg)})` : ""}`;
  if (Math.abs(shutter.snapStops) < 0.005) return `The camera shoots at ${offered}.`;
  return `Wanted 1/${decimal(1 / shutter.idealS, 1)}, the camera offers ${offered}: ${signed2(shutter.snapStops)} stops.`;
}

const signed2 = (value: number): string => (Math.abs(value) < 0.05 ? decimal(value, 2) : signed(value));
