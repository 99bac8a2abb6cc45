import { Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { camerasQuery, rigsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { SpectrumDrawing } from "../../instruments/spectrum/SpectrumDrawing";
import { FileButton } from "../../lib/FileButton";
import { useHandedOver } from "../../lib/handOver";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { Columns } from "./Columns";
import { KeepShake } from "./KeepShake";
import { StandIn } from "./StandIn";
import { Told } from "./Told";
import { useMeasure } from "./useMeasure";

const SHUTTERS = [25, 50, 100, 200, 500, 1000];

/** How a camera shook: what was meant, what was not, and at which frequencies. */
export function GyroView() {
  const [file, setFile] = useState<File>();
  const [unit, setUnit] = useState("");
  const [shutter, setShutter] = useState("50");
  const [rigId, setRigId] = useState("");
  const [rpm, setRpm] = useState<number>();
  const [blades, setBlades] = useState<number>();
  const { data: rigs = [] } = useQuery(rigsQuery);
  const { data: cameras = [] } = useQuery(camerasQuery);
  const rig = rigs.find((r) => r.id === rigId);
  const held = JSON.stringify(stabilised(cameras.find((c) => c.id === rig?.cameraId)));
  const measure = useMeasure("gyro");
  const { mutate } = measure;
  useHandedOver("gyro", setFile);
  useEffect(() => {
    if (!file) return;
    mutate([
      { option: "file", file },
      { option: "shutter", text: `1/${shutter}` },
      ...(unit ? [{ option: "rate-unit", text: unit }] : []),
      ...(rpm === undefined ? [] : [{ option: "motor-rpm", text: String(rpm) }]),
      ...(blades === undefined ? [] : [{ option: "blades", text: String(blades) }]),
      ...Object.entries(JSON.parse(held) as Record<string, string>).map(([option, text]) => ({ option, text })),
    ]);
  }, [file, unit, shutter, rpm, blades, held, mutate]);
  const gyro = measure.data;
  const isMeasured = gyro?.shakeDegS != null;
  return (
    <Columns shares="3:2">
      <Panel heading="The gyro's log" note={file?.name}>
        <Stack gap="3">
          <Flex gap="3" wrap="wrap" align="flex-end">
            <FileButton
              variant={file ? "outline" : "solid"}
              label="A gyro log"
              accept=".csv,text/csv,text/plain"
              onFile={setFile}
            >
              {file ? "Another log" : "Choose a CSV"}
            </FileButton>
            <SelectField
              label="Its unit"
              maxW="180px"
              value={unit}
              options={[
                { value: "", name: "as its heading says" },
                { value: "deg/s", name: "deg/s" },
                { value: "rad/s", name: "rad/s" },
              ]}
              onChange={setUnit}
            />
            <SelectField
              label="Shutter drawn over it"
              maxW="140px"
              value={shutter}
              options={SHUTTERS.map((n) => ({ value: String(n), name: `1/${n}` }))}
              onChange={setShutter}
            />
            <NumberField label="Motor, turns a minute" w="150px" value={rpm} onChange={setRpm} />
            <NumberField label="Its blades" w="90px" value={blades} onChange={setBlades} />
          </Flex>
          <Told measure={measure} found={gyro} />
          {gyro && isMeasured && <SpectrumDrawing gyro={gyro} />}
        </Stack>
      </Panel>
      <Panel heading="It shook by">
        {gyro && isMeasured ? (
          <Shook gyro={gyro} shutter={`1/${shutter}`}>
            <KeepShake gyro={gyro} rig={rig} onRig={setRigId} />
          </Shook>
        ) : (
          <StandIn
            href="/api/sim/walk.csv"
            name="a simulated walk"
            says="Read a log of ten seconds or more to see it here."
          />
        )}
      </Panel>
    </Columns>
  );
}

/** What of a motor swings at a peak, and what that says. */
const PEAKS_OF: Record<NonNullable<Schemas["MeasuredPeak"]["of"]>, string> = {
  motor: "the motor turning: out of balance",
  "motor twice": "twice the motor's turning: bent or loose",
  blades: "blades passing",
  "blades twice": "twice the blades passing",
};

/** The stabiliser before the lens of a camera, as a measurement takes it; nothing where one is not known. */
function stabilised(camera: Schemas["StoredCamera"] | undefined): Record<string, string> {
  const { lens, stabiliser } = camera?.profile ?? {};
  if (!lens || !stabiliser) return {};
  const [width] = camera?.frameSizes?.[0]?.split("x") ?? [];
  return {
    stabiliser,
    "width-px": width ?? String(lens.widthPx),
    "hfov-deg": String(lens.hfovDeg),
    projection: lens.projection,
  };
}

interface ShookProps {
  gyro: Schemas["MeasuredGyroAnswer"];
  shutter: string;
  children: React.ReactNode;
}

function Shook({ gyro, shutter, children }: ShookProps) {
  const { shakeDegS, intendedDegS, peaks, samplingHz, durationS, biasKnown, stabiliser } = gyro;
  return (
    <Stack gap="2" data-testid="gyro-says">
      <Text fontSize="4xl" fontWeight="bold" lineHeight="1.1">
        {decimal(shakeDegS ?? 0, 1)}°/s
      </Text>
      <Text>nine tenths of the time at most. Meant: {decimal(intendedDegS ?? 0, 1)}°/s.</Text>
      {peaks.slice(0, 3).map((p) => (
        <Text key={p.hz}>
          {decimal(p.hz, 1)} Hz{p.of && ` (${PEAKS_OF[p.of]})`}: {decimal(p.degS, 1)}°/s
          {p.keptShare !== undefined && `, of which ${shutter} leaves ${decimal(100 * p.keptShare, 0)} %`}
        </Text>
      ))}
      <Text color="muted" fontSize="sm">
        {decimal(durationS, 1)} s at {decimal(samplingHz ?? 0, 0)} Hz
        {biasKnown ? "" : "; what it shows at rest is not known"}
      </Text>
      {children}
      {stabiliser && (
        <Text fontWeight="bold" data-testid="gyro-limit">
          {stabiliser.floorS
            ? `Stabiliser limit ${shutterText(stabiliser.floorS)}: slower shutters ghost with this shake`
            : "Its stabiliser sets no shutter limit"}
        </Text>
      )}
    </Stack>
  );
}
