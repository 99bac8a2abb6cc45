import { Flex, List, Stack, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { Schemas } from "../../api/schemas";
import { TelemetryDrawing } from "../../instruments/telemetry/TelemetryDrawing";
import { FileButton } from "../../lib/FileButton";
import { signed } from "../../lib/format";
import { useHandedOver } from "../../lib/handOver";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { TextField } from "../../lib/TextField";
import { Columns } from "./Columns";
import { AsOutcome, AsReading } from "./KeepLog";
import { StandIn } from "./StandIn";
import { Told } from "./Told";
import { useMeasure } from "./useMeasure";

type Telemetry = Schemas["MeasuredTelemetryAnswer"];

/** What the log of a clip says: the shutter against its target, where the automatic moved. */
export function TelemetryView() {
  const [file, setFile] = useState<File>();
  const [target, setTarget] = useState("");
  const [fps, setFps] = useState<number>();
  const [on, setOn] = useState<number>();
  const measure = useMeasure("telemetry");
  const { mutate } = measure;
  useHandedOver("telemetry", setFile);
  useEffect(() => {
    if (!file) return;
    mutate([
      { option: "file", file },
      ...(target.trim() ? [{ option: "target", text: target.trim() }] : []),
      ...(fps ? [{ option: "fps", text: String(fps) }] : []),
      ...(on === undefined ? [] : [{ option: "on", text: String(on) }]),
    ]);
  }, [file, target, fps, on, mutate]);
  const log = measure.data;
  return (
    <Columns shares="3:2">
      <Panel heading="The log" note={file?.name}>
        <Stack gap="3">
          <Flex gap="3" wrap="wrap" align="flex-end">
            <FileButton
              variant={file ? "outline" : "solid"}
              label="A log"
              accept=".srt,.csv,text/plain,text/csv"
              onFile={setFile}
            >
              {file ? "Another log" : "Choose subtitles or a CSV"}
            </FileButton>
            <TextField label="Shutter target, as 1/100 or 180°" w="220px" value={target} onChange={setTarget} />
            <NumberField label="Frames a second" w="120px" value={fps} onChange={setFps} />
            <NumberField label="Filter on, stops" w="120px" value={on} onChange={setOn} />
          </Flex>
          <Told measure={measure} found={log} />
          {log && <TelemetryDrawing log={log} />}
        </Stack>
      </Panel>
      <Panel heading="It says">
        {log?.shutter ? (
          <Says log={log} name={file?.name ?? ""} />
        ) : (
          <StandIn href="/api/sim/flight.srt" name="a simulated flight" says="Read a log to see it here." />
        )}
      </Panel>
    </Columns>
  );
}

const MEANS: Record<string, string> = {
  locked: "Shutter and ISO were locked.",
  "shutter-automatic": "Auto shutter was on: it moved by itself.",
  "iso-automatic": "Auto ISO was on.",
  "changed-by-hand": "It was changed by hand.",
  "shutter-limit": "The automatic ran into the end of its range.",
};

function Says({ log, name }: { log: Telemetry; name: string }) {
  const { shutter, withinShare, targetS, iso, means, excursions, reading, limit } = log;
  return (
    <Stack gap="2" data-testid="telemetry-says">
      {withinShare != null && targetS != null && (
        <Text fontSize="2xl" fontWeight="bold" lineHeight="1.1">
          {decimal(100 * withinShare, 0)} % of the time within half a stop of {shutterText(targetS)}
        </Text>
      )}
      {means.map((m) => (
        <Text key={m}>{MEANS[m] ?? m}</Text>
      ))}
      {shutter && (
        <Text color="muted">
          Shutter {shutterText(shutter.fastestS)} to {shutterText(shutter.slowestS)}
          {iso && `, ISO ${iso.low === iso.high ? iso.low : `${iso.low}–${iso.high}`}`}
          {limit && `; ${decimal(100 * limit.share, 0)} % of the time at the ${limit.kind}`}
        </Text>
      )}
      <List.Root ps="5" maxH="180px" overflowY="auto" tabIndex={0} aria-label="Stretches away from the target">
        {excursions.map((e) => (
          <List.Item key={`${e.kind} ${e.fromS}`}>
            {decimal(e.fromS, 1)}–{decimal(e.toS, 1)} s: {e.kind} {signed(e.stops)} stops
          </List.Item>
        ))}
      </List.Root>
      {reading && <AsReading reading={reading} name={name} />}
      <AsOutcome log={log} name={name} />
    </Stack>
  );
}
