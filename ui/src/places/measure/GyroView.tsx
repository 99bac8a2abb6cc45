import { Box, Button, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Schemas, unwrap } from "../../api/client";
import { camerasQuery, rigsQuery } from "../../api/queries";
import { SpectrumDrawing } from "../../instruments/spectrum/SpectrumDrawing";
import { FileButton } from "../../lib/FileButton";
import { useHandedOver } from "../../lib/handOver";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { toaster } from "../../shell/toaster";
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
      ...Object.entries(JSON.parse(held) as Record<string, string>).map(([option, text]) => ({ option, text })),
    ]);
  }, [file, unit, shutter, held, mutate]);
  const gyro = measure.data;
  const isMeasured = gyro?.shakeDegS != null;
  return (
    <Grid gap="3" templateColumns={{ base: "1fr", lg: "minmax(0, 3fr) minmax(0, 2fr)" }}>
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
          </Flex>
          <Told measure={measure} found={gyro} />
          {gyro && isMeasured && <SpectrumDrawing gyro={gyro} />}
        </Stack>
      </Panel>
      <Panel heading="It shook by">
        {gyro && isMeasured ? (
          <Shook gyro={gyro} shutter={`1/${shutter}`}>
            <KeepShake shakeDegS={gyro.shakeDegS ?? 0} rig={rig} rigs={rigs} cameras={cameras} onRig={setRigId} />
          </Shook>
        ) : (
          <StandIn
            href="/api/sim/walk.csv"
            name="a simulated walk"
            says="Read a log of ten seconds or more to see it here."
          />
        )}
      </Panel>
    </Grid>
  );
}

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
          {decimal(p.hz, 1)} Hz: {decimal(p.degS, 1)}°/s
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

interface KeepShakeProps {
  shakeDegS: number;
  rig: Schemas["StoredRig"] | undefined;
  rigs: readonly Schemas["StoredRig"][];
  cameras: readonly Schemas["StoredCamera"][];
  onRig: (id: string) => void;
}

/** Keeps a shake with a camera as it is held: its shots are judged by it. */
function KeepShake({ shakeDegS, rig, rigs, cameras, onRig }: KeepShakeProps) {
  const queries = useQueryClient();
  const keep = useMutation({
    mutationFn: () => {
      if (!rig) throw new Error("Choose a camera");
      const { id, cameraId, name, housing, way, measures, recipe, sources, craft, version } = rig;
      const body = {
        cameraId,
        name,
        housing,
        way,
        measures,
        ...(recipe && { recipe }),
        ...(sources && { sources }),
        craft: { ...craft, shakeDegS: Number(shakeDegS.toFixed(1)) },
      };
      return unwrap(api.PUT("/api/rigs/{id}", { params: { path: { id }, query: { version } }, body }));
    },
    onSuccess: (rig) => {
      toaster.create({ title: `Saved with ${rig.name}`, description: "Its shots are judged by this shake" });
      queries.invalidateQueries({ queryKey: ["bench"] });
      queries.invalidateQueries({ queryKey: ["shots"] });
    },
    onError: (error) => toaster.create({ title: "Not saved", description: error.message }),
  });
  const cameraOf = (cameraId: string) => cameras.find((c) => c.id === cameraId)?.name ?? "";
  return (
    <Box mt="2">
      <Flex gap="2" align="flex-end" wrap="wrap">
        <SelectField
          label="The camera, as it was held"
          maxW="300px"
          value={rig?.id ?? ""}
          options={[
            { value: "", name: "choose" },
            ...rigs.map((r) => ({ value: r.id, name: `${cameraOf(r.cameraId)}, ${r.name}` })),
          ]}
          onChange={onRig}
        />
        <Button disabled={!rig} loading={keep.isPending} onClick={() => keep.mutate()}>
          Save as its shake
        </Button>
      </Flex>
    </Box>
  );
}
