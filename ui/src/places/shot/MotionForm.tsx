import { Button, Flex, List, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { presetsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { StickCurve } from "../../instruments/stick-curve/StickCurve";
import { ACTIVITIES } from "../../lib/activities";
import { Choice } from "../../lib/Choice";
import type { FaultOf } from "../../lib/faults";
import { NumberField } from "../../lib/NumberField";
import { Sheet } from "../../lib/Sheet";
import { amountOf, useUnits } from "../../lib/units";
import { RigForm } from "../kit/RigForm";
import type { Answer, Bench } from "./draft";

type Scene = Schemas["ShotScene"];
type Movement = Schemas["MovementFields"];

const LAMPS = [
  { value: "none", name: "None" },
  { value: "50", name: "50 Hz" },
  { value: "60", name: "60 Hz" },
] as const;

interface MotionFormProps {
  scene: Scene;
  answer: Answer;
  bench: Bench;
  faultOf: FaultOf;
  onChange: (part: Partial<Scene>) => void;
}

/** What passes, what shakes, what vibrates and what pulses. */
export function MotionForm({ scene, answer, bench, faultOf, onChange }: MotionFormProps) {
  const movement = scene.movement ?? {};
  const setMovement = (part: Partial<Movement>) => onChange({ movement: kept({ ...movement, ...part }) });
  const flies = bench.camera.profile?.flies;
  const usual = bench.rig.craft?.activity;
  return (
    <Stack gap="3">
      <Choice
        label="Activity"
        options={Object.entries(ACTIVITIES).map(([value, name]) => ({ value: value as keyof typeof ACTIVITIES, name }))}
        value={scene.shakeDegS === undefined ? (scene.activity ?? usual) : undefined}
        onChange={(activity) => onChange({ activity, shakeDegS: undefined })}
      />
      {usual && scene.shakeDegS === undefined && scene.activity === undefined && (
        <Text color="muted" fontSize="sm">
          {ACTIVITIES[usual]} is what is usual with it {bench.rig.name}; this shot may say another.
        </Text>
      )}
      <Flex gap="3" wrap="wrap">
        <NumberField
          label="or its shake, °/s"
          value={scene.shakeDegS}
          fault={faultOf("scene.shakeDegS")}
          onChange={(shakeDegS) => onChange({ shakeDegS })}
        />
        <NumberField
          label="Subject speed"
          quantity="speed"
          w="150px"
          value={movement.speedMps}
          fault={faultOf("scene.movement.speedMps")}
          onChange={(speedMps) => setMovement({ speedMps })}
        />
        <NumberField
          label="Distance"
          quantity="length"
          value={movement.distanceM}
          fault={faultOf("scene.movement.distanceM")}
          onChange={(distanceM) => setMovement({ distanceM })}
        />
        <NumberField
          label="Off the axis, °"
          helper="90: passing by"
          value={movement.offAxisDeg}
          fault={faultOf("scene.movement.offAxisDeg")}
          onChange={(offAxisDeg) => setMovement({ offAxisDeg })}
        />
        <NumberField
          label="Pan, °/s"
          value={movement.turnDegS}
          fault={faultOf("scene.movement.turnDegS")}
          onChange={(turnDegS) => setMovement({ turnDegS })}
        />
      </Flex>
      <MotionWords answer={answer} />
      <Flex gap="3" wrap="wrap">
        <Choice
          label="Lights on mains"
          options={LAMPS}
          value={scene.lamps ? (String(scene.lamps.mainsHz) as "50" | "60") : "none"}
          onChange={(hz) => onChange({ lamps: hz === "none" ? undefined : { mainsHz: Number(hz) } })}
        />
        <MotorSwing scene={scene} faultOf={faultOf} onChange={onChange} />
      </Flex>
      {flies && <FlightFields {...{ scene, answer, bench, faultOf, onChange }} />}
    </Stack>
  );
}

/** The movement without what is not given; none at all where nothing is. */
function kept(movement: Movement): Movement | undefined {
  const given = Object.fromEntries(Object.entries(movement).filter(([, v]) => v !== undefined));
  return Object.keys(given).length > 0 ? given : undefined;
}

function MotionWords({ answer }: { answer: Answer }) {
  const { motion } = answer;
  const units = useUnits();
  return (
    <Stack gap="1" aria-live="polite" data-testid="motion-words">
      <List.Root gap="1" ps="4">
        {(motion?.words ?? []).map((words) => (
          <List.Item key={words} _marker={{ color: "muted" }}>
            {words}
          </List.Item>
        ))}
        {motion?.visibleWithinM !== undefined && (
          <List.Item _marker={{ color: "muted" }}>
            blur shows on what passes within {amountOf("length", motion.visibleWithinM, 2, units)}
          </List.Item>
        )}
      </List.Root>
    </Stack>
  );
}

function MotorSwing({ scene, faultOf, onChange }: Pick<MotionFormProps, "scene" | "faultOf" | "onChange">) {
  const { motor } = scene;
  if (!motor)
    return (
      <Button
        alignSelf="end"
        variant="outline"
        onClick={() => onChange({ motor: { rpm: 18000, blades: 3, amplitudeDeg: 0.03 } })}
      >
        Add a motor's vibration
      </Button>
    );
  const set = (part: Partial<typeof motor>) => onChange({ motor: { ...motor, ...part } });
  return (
    <Flex gap="3" wrap="wrap" role="group" aria-label="Motor">
      <NumberField
        label="Motor, turns/min"
        value={motor.rpm}
        fault={faultOf("scene.motor.rpm") ?? faultOf("scene.motor.hz")}
        onChange={(rpm) => set({ rpm })}
      />
      <NumberField
        label="Blades"
        w="80px"
        value={motor.blades}
        fault={faultOf("scene.motor.blades")}
        onChange={(blades) => set({ blades })}
      />
      <NumberField
        label="Swing, °"
        w="90px"
        value={motor.amplitudeDeg}
        fault={faultOf("scene.motor.amplitudeDeg")}
        onChange={(amplitudeDeg) => set({ amplitudeDeg: amplitudeDeg ?? 0 })}
      />
      <Button alignSelf="end" variant="ghost" onClick={() => onChange({ motor: undefined })}>
        Remove
      </Button>
    </Flex>
  );
}

/** What a pilot wants to know: how far the sticks may go, and the tilt against speed. */
function FlightFields({ scene, answer, bench, faultOf, onChange }: MotionFormProps) {
  const { data: presets } = useQuery(presetsQuery);
  if (!presets) return <Skeleton h="120px" />;
  const { tilt } = { ...presets.starts, ...scene };
  const setTilt = (part: Partial<typeof tilt>) => onChange({ tilt: { ...tilt, ...part } });
  return (
    <Stack gap="3" role="group" aria-label="Flight">
      <Flex gap="4" wrap="wrap" align="start">
        {(answer.sticks ?? []).map((stick) => (
          <StickCurve key={stick.axis} stick={stick} />
        ))}
        <CraftSheet bench={bench} />
      </Flex>
      <Flex gap="3" wrap="wrap" align="start">
        <NumberField
          label="Camera tilt, °"
          value={tilt.tiltDeg}
          fault={faultOf("scene.tilt.tiltDeg")}
          onChange={(v) => setTilt({ tiltDeg: v ?? 0 })}
        />
        <NumberField
          label="right at"
          quantity="speed"
          value={tilt.atMps}
          fault={faultOf("scene.tilt.atMps")}
          onChange={(v) => setTilt({ atMps: v ?? 0 })}
        />
        <NumberField
          label="this shot at"
          quantity="speed"
          w="140px"
          value={tilt.speedMps}
          fault={faultOf("scene.tilt.speedMps")}
          onChange={(v) => setTilt({ speedMps: v ?? 0 })}
        />
      </Flex>
    </Stack>
  );
}

/** The rates belong to the craft, not to the shot: they are changed there, without leaving. */
function CraftSheet({ bench }: { bench: Bench }) {
  const [isOpen, setOpen] = useState(false);
  const { id } = bench.rig;
  return (
    <>
      <Button variant="outline" onClick={() => setOpen(true)}>
        {bench.rig.craft?.rates ? "Change its rates" : "Say its stick rates"}
      </Button>
      <Sheet title={`${bench.camera.name}, ${bench.rig.name}`} isOpen={isOpen} onOpen={setOpen} size="xl">
        <RigForm cameraId={bench.camera.id} {...(id && { rig: bench.rig })} onDone={() => setOpen(false)} />
      </Sheet>
    </>
  );
}
