import { Box, Button, Flex, List, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import { PICTURES } from "../../api/here/pixels";
import type { Schemas } from "../../api/schemas";
import { decimal } from "../../lib/locale";
import { Panel } from "../../lib/Panel";
import { TextField } from "../../lib/TextField";
import { Columns } from "./Columns";
import { forgetCurve, keepCurve, useCurves } from "./curves";
import { FilesField } from "./FilesField";
import { Told } from "./Told";
import { useMeasure } from "./useMeasure";

/** The transfer of a profile that is not the usual, found from a bracket of one still scene. */
export function CurveView() {
  const [frames, setFrames] = useState<File[]>([]);
  const [exposures, setExposures] = useState("");
  const measure = useMeasure("curve");
  const said = exposures
    .split(/[\n;]/)
    .map((text) => text.trim())
    .filter(Boolean);
  const curves = useCurves();
  return (
    <Columns>
      <Panel heading="A bracket of one scene" note="for flat and log profiles">
        <Stack gap="3">
          <List.Root as="ol" ps="5">
            <List.Item>A scene with bright and dark parts that do not move; camera fixed, no filter.</List.Item>
            <List.Item>The profile as you film with it, everything else locked.</List.Item>
            <List.Item>Three to seven frames a stop apart, by the shutter alone: four stops in all.</List.Item>
          </List.Root>
          <FilesField label="The frames" files={frames} onFiles={setFrames} accept={PICTURES} isMany />
          <TextField
            label="Their exposures, in the same order"
            helper="1/1000 iso100; 1/500 iso100; … unless EXIF says"
            value={exposures}
            onChange={setExposures}
          />
          <Button
            alignSelf="flex-start"
            disabled={frames.length === 0}
            onClick={() =>
              measure.mutate([
                ...frames.map((file) => ({ option: "frame", file })),
                ...said.map((text) => ({ option: "frame-exposure", text })),
              ])
            }
          >
            Measure
          </Button>
        </Stack>
      </Panel>
      <Panel heading="Its curve">
        <Stack gap="3" data-testid="curve-result">
          <Told measure={measure} found={measure.data} />
          {measure.data && measure.data.refused.length === 0 && <Found answer={measure.data} />}
          {curves.map(({ name }) => (
            <Flex key={name} gap="3" align="center">
              <Text flex="1">{name}: used where a pair says it was taken with it</Text>
              <Button size="sm" variant="ghost" onClick={() => forgetCurve(name)}>
                Forget
              </Button>
            </Flex>
          ))}
        </Stack>
      </Panel>
    </Columns>
  );
}

function Found({ answer }: { answer: Schemas["MeasuredCurveAnswer"] }) {
  const [name, setName] = useState("");
  const { curve, fromCode, toCode, residualStops, srgbDepartureStops, useIt } = answer;
  return (
    <Box>
      <Text fontSize="2xl" fontWeight="bold" lineHeight="1.1">
        {useIt ? "It is not the standard: measure pairs with it" : "As good as the standard"}
      </Text>
      <Text>
        {decimal(srgbDepartureStops ?? 0, 1)} stops from the standard at most; known from code {fromCode} to {toCode},
        to {decimal(residualStops ?? 0, 2)} stops
      </Text>
      <Drawn stops={curve.stops} />
      <Flex gap="2" align="flex-end" mt="2">
        <TextField label="Name of the profile" w="200px" value={name} onChange={setName} />
        <Button disabled={name.trim() === ""} onClick={() => keepCurve({ name: name.trim(), curve })}>
          Save on this device
        </Button>
      </Flex>
    </Box>
  );
}

/** Light in stops by the code that the file has for it. */
function Drawn({ stops }: { stops: readonly (number | null)[] }) {
  const known = stops.flatMap((s, code) => (s === null ? [] : [{ code, s }]));
  const low = Math.min(...known.map((p) => p.s));
  const high = Math.max(...known.map((p) => p.s));
  const points = known.map((p) => `${p.code},${(120 - ((p.s - low) / Math.max(0.1, high - low)) * 112).toFixed(1)}`);
  return (
    <svg
      viewBox="0 0 256 128"
      role="img"
      aria-label={`Light by code, ${decimal(high - low, 1)} stops from the darkest to the brightest`}
      style={{ width: "100%", maxWidth: "380px" }}
    >
      <path d="M0 0V127H256" stroke="currentColor" opacity={0.3} fill="none" />
      <polyline points={points.join(" ")} fill="none" stroke="currentColor" strokeWidth={2} />
      <g fill="currentColor" fontSize={8} opacity={0.75}>
        <text x={4} y={9}>
          {decimal(high - low, 1)} stops
        </text>
        <text x={252} y={123} textAnchor="end">
          code 255
        </text>
      </g>
    </svg>
  );
}
