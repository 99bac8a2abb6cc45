import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Part } from "../../api/here/measure";
import { PICTURES } from "../../api/here/pixels";
import type { Schemas } from "../../api/schemas";
import { Choice } from "../../lib/Choice";
import { signed } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { withError } from "../../lib/measured";
import { Panel } from "../../lib/Panel";
import { TextField } from "../../lib/TextField";
import { Columns } from "./Columns";
import { CurveField } from "./CurveField";
import { curvePart } from "./curves";
import { FilesField } from "./FilesField";
import { KeepWith } from "./KeepWith";
import { SimulatedPair } from "./SimulatedPair";
import { TargetDrawing } from "./TargetDrawing";
import { Told } from "./Told";
import { useMeasure } from "./useMeasure";

type Way = "frames" | "readings";
const WAYS = [
  { value: "frames", name: "Frames" },
  { value: "readings", name: "Readings of the automatic" },
] as const satisfies readonly { value: Way; name: string }[];

/** What a filter cuts: by frames without and with it, or by what the automatic chose. */
export function FilterPair() {
  const [way, setWay] = useState<Way>("frames");
  const [without, setWithout] = useState<File[]>([]);
  const [withIt, setWith] = useState<File[]>([]);
  const [curve, setCurve] = useState("");
  const [texts, setTexts] = useState({ without: "", with: "" });
  const measure = useMeasure("filter");
  const parts = (): Part[] => {
    const said = way === "frames" ? "exposure" : "reading";
    const side = (name: "without" | "with", files: readonly File[]): Part[] => [
      ...(way === "frames" ? files.map((file) => ({ option: name, file })) : []),
      ...(texts[name].trim() ? [{ option: `${name}-${said}`, text: texts[name] }] : []),
    ];
    return [...side("without", without), ...side("with", withIt), ...(way === "frames" ? curvePart(curve) : [])];
  };
  const isReady = way === "readings" ? texts.without && texts.with : without.length > 0 && withIt.length > 0;
  const names = [...without, ...withIt].map((f) => f.name).join(", ");
  return (
    <Columns>
      <Panel heading="Without it and with it" note="a lit wall or open sky, the lens locked, ten seconds apart">
        <Stack gap="3">
          <Choice label="By" options={WAYS} value={way} onChange={setWay} />
          {way === "frames" && (
            <>
              <TargetDrawing target="wall" />
              <FilesField
                label="Frames without the filter"
                files={without}
                onFiles={setWithout}
                accept={PICTURES}
                isMany
              />
              <FilesField label="Frames with the filter" files={withIt} onFiles={setWith} accept={PICTURES} isMany />
              <CurveField value={curve} onChange={setCurve} />
              <Text color="muted" fontSize="sm">
                One more frame without it at the end shows whether the light changed.
              </Text>
            </>
          )}
          <Flex gap="3" wrap="wrap">
            <TextField
              label={way === "frames" ? "Exposure without" : "It chose without"}
              w="220px"
              helper={way === "frames" ? "1/1000 iso100, unless EXIF says" : "1/1000 iso100, or 1/50..1/40 iso100"}
              value={texts.without}
              onChange={(text) => setTexts({ ...texts, without: text })}
            />
            <TextField
              label={way === "frames" ? "Exposure with" : "It chose with"}
              w="220px"
              value={texts.with}
              onChange={(text) => setTexts({ ...texts, with: text })}
            />
          </Flex>
          <Button alignSelf="flex-start" disabled={!isReady} onClick={() => measure.mutate(parts())}>
            Measure
          </Button>
        </Stack>
      </Panel>
      <Panel heading="It cuts">
        <Stack gap="3">
          <Told measure={measure} found={measure.data} />
          {measure.isIdle && way === "frames" && <SimulatedPair target="wall" />}
          {measure.data?.stops != null && (
            <Truth
              answer={measure.data}
              note={`${withError(measure.data.stops, measure.data.stdErrorStops)}${names ? ` from ${names}` : ""}`}
            />
          )}
        </Stack>
      </Panel>
    </Columns>
  );
}

function Truth({ answer, note }: { answer: Schemas["MeasuredFilterAnswer"]; note: string }) {
  const [filter, setFilter] = useState<Schemas["ShownFilter"]>();
  const { stops, stdErrorStops, castStops, cast, errors, driftStops, lowStops, highStops } = answer;
  if (stops == null) return null;
  const printed = filter?.reads.stops;
  const towardsRed = castStops ?? undefined;
  return (
    <Box data-testid="filter-truth">
      <Text fontSize="4xl" fontWeight="bold" lineHeight="1.1">
        {withError(stops, stdErrorStops)}
      </Text>
      {printed !== undefined && (
        <Text>
          Marked {decimal(printed, 2)} stops: {signed(stops - printed)} against that
        </Text>
      )}
      {lowStops != null && highStops != null && (
        <Text>
          Between {decimal(lowStops, 2)} and {decimal(highStops, 2)} stops
        </Text>
      )}
      {towardsRed !== undefined && (
        <Text>
          Colour shift: {cast.length > 0 ? cast.join(", ") : "none to see"} ({signed(towardsRed)} stops towards red)
        </Text>
      )}
      {errors && (
        <Text color="muted" fontSize="sm">
          of the ±: noise {decimal(errors.noiseStops, 2)}, camera's marks {decimal(errors.settingStops, 2)}, profile{" "}
          {decimal(errors.transferStops, 2)}, light {decimal(errors.driftStops, 2)}
          {driftStops != null && ` (the light changed by ${decimal(driftStops, 2)} stops and is corrected)`}
        </Text>
      )}
      <Box mt="3">
        <KeepWith
          fields={{
            measuredStops: Math.max(-1, Number(stops.toFixed(3))),
            ...(stdErrorStops != null && { stdErrStops: Number(stdErrorStops.toFixed(3)) }),
            ...(towardsRed !== undefined && { castStops: Number(towardsRed.toFixed(3)) }),
          }}
          note={note}
          onFilter={setFilter}
        />
      </Box>
    </Box>
  );
}
