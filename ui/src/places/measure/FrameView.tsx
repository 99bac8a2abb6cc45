import { Box, Flex, List, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { PICTURES, pixelsOf, shownOf } from "../../api/here/pixels";
import { camerasQuery, filtersQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { FrameReader } from "../../instruments/frame-reader/FrameReader";
import { FileButton } from "../../lib/FileButton";
import { signed } from "../../lib/format";
import { together } from "../../lib/glass";
import { useHandedOver } from "../../lib/handOver";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { Columns } from "./Columns";
import { Told } from "./Told";
import { useMeasure } from "./useMeasure";

/** One frame: what is clipped, where middle grey lies, and the filter that makes it so. */
export function FrameView() {
  const { data: cameras = [] } = useQuery(camerasQuery);
  const { data: filters = [] } = useQuery(filtersQuery);
  const [file, setFile] = useState<File>();
  const [cameraId, setCameraId] = useState("");
  const [on, setOn] = useState<number>();
  const measure = useMeasure("frame");
  const { mutate } = measure;
  useHandedOver("frame", setFile);
  const kit = JSON.stringify(
    filters.filter((f) => f.cameras.includes(cameraId)).flatMap((f) => (f.counts ? [f.counts] : [])),
  );
  useEffect(() => {
    if (!file) return;
    mutate([
      { option: "file", file },
      ...(cameraId ? [{ option: "kit", file: new File([kit], "kit.json") }] : []),
      ...(on === undefined ? [] : [{ option: "on", text: String(on) }]),
    ]);
  }, [file, cameraId, kit, on, mutate]);
  const url = useUrl(file);
  const frame = measure.data;
  const titleOf = (id: string) => filters.find((f) => f.id === id)?.title ?? id;
  return (
    <Columns shares="3:2">
      <Panel heading="The frame" note={file?.name}>
        <Stack gap="3">
          <FileButton
            variant={file ? "outline" : "solid"}
            label="A frame"
            accept={PICTURES}
            alignSelf="flex-start"
            onFile={setFile}
          >
            {file ? "Another frame" : "Choose a picture"}
          </FileButton>
          <Told measure={measure} found={frame} />
          {frame && url && <FrameReader frame={frame} url={url} />}
        </Stack>
      </Panel>
      <Box order={{ base: frame ? -1 : 0, lg: 0 }}>
        <Panel heading="Advice">
          <Stack gap="3">
            {frame ? <Advice frame={frame} /> : <Text color="muted">Read a test frame to see its advice here.</Text>}
            <Flex gap="3" wrap="wrap">
              <SelectField
                label="Filters of"
                maxW="260px"
                value={cameraId}
                options={[{ value: "", name: "no camera" }, ...cameras.map((c) => ({ value: c.id, name: c.name }))]}
                onChange={setCameraId}
              />
              <NumberField label="Filter on, stops" w="130px" value={on} onChange={setOn} />
            </Flex>
            {frame?.glass && <Options glass={frame.glass} titleOf={titleOf} />}
          </Stack>
        </Panel>
      </Box>
    </Columns>
  );
}

function Advice({ frame }: { frame: Schemas["MeasuredFrameAnswer"] }) {
  const { adviceStops: advice, adviceAtLeast, adviceRough, file, uneven } = frame;
  if (advice == null) return null;
  const size = decimal(Math.abs(advice), 1);
  const isRight = size === decimal(0, 1);
  return (
    <Box data-testid="frame-advice">
      <Text fontSize="3xl" fontWeight="bold" lineHeight="1.1">
        {isRight
          ? "As metered"
          : `${adviceAtLeast && advice < 0 ? "At least " : ""}${size} stops ${advice < 0 ? "darker" : "brighter"}`}
      </Text>
      {adviceRough && <Text>More than half is black: a rough figure.</Text>}
      {adviceAtLeast && <Text>Highlights are clipped: how far beyond is not in the file.</Text>}
      <Text color="muted" fontSize="sm">
        {file.widthPx} × {file.heightPx}, {file.bits} bits
        {file.exposure &&
          ` · ${file.exposure.shutterS ? shutterText(file.exposure.shutterS) : ""} ISO ${file.exposure.iso}`}
        {` · median ${decimal(100 * frame.p50, 0)} %, brightest ${decimal(100 * frame.p99, 0)} %`}
        {Math.abs(uneven.leftRightStops) > 0.3 && ` · left ${signed(uneven.leftRightStops)} against right`}
      </Text>
    </Box>
  );
}

function Options({ glass, titleOf }: { glass: Schemas["MeasuredFrameGlass"]; titleOf: (id: string) => string }) {
  const [best, ...others] = glass.options;
  const nameOf = (ids: readonly string[]) => together(ids.map(titleOf));
  if (!best) return null;
  return (
    <Box data-testid="frame-glass">
      <Text color="muted" fontSize="sm">
        {decimal(glass.wantStops, 1)} stops wanted
      </Text>
      <Text fontSize="2xl" fontWeight="bold">
        {nameOf(best.filters)}
      </Text>
      <Text>{signed(best.errorStops)} stops error</Text>
      <List.Root ps="5" color="muted">
        {others.slice(0, 3).map((o) => (
          <List.Item key={o.filters.join()}>
            {nameOf(o.filters)}, {signed(o.errorStops)}
          </List.Item>
        ))}
      </List.Root>
    </Box>
  );
}

/** An address for a file, for as long as it is shown. */
function useUrl(file: File | undefined): string | undefined {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    if (!file) return;
    let made: string | undefined;
    let isGone = false;
    const show = (picture: Blob) => {
      if (isGone) return;
      made = URL.createObjectURL(picture);
      setUrl(made);
    };
    // A broken picture is told by the measurement.
    pixelsOf(file).then(
      async (pixels) => show(pixels ? await shownOf(pixels) : file),
      () => show(file),
    );
    return () => {
      isGone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [file]);
  return url;
}
