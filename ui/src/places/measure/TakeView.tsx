import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { shotsQuery } from "../../api/queries";
import { TakeTraces } from "../../instruments/take/TakeTraces";
import { FileButton } from "../../lib/FileButton";
import { useHandedOver } from "../../lib/handOver";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { ClipSubtitles } from "./ClipSubtitles";
import { Columns } from "./Columns";
import { StandIn } from "./StandIn";
import { TakeBeside } from "./TakeBeside";
import { TakePair } from "./TakePair";
import { TakeSays } from "./TakeSays";
import { Told } from "./Told";
import { useTake } from "./useTake";

/** How much of a clip is measured, seconds; "" is windows spread over all of it. */
const LENGTHS = [
  ...[2, 4, 10, 20].map((s) => ({ value: String(s), name: `${s} s` })),
  { value: "", name: "spread over all" },
];

/** A clip: what came out, beside what was meant. */
export function TakeView() {
  const { data: shots = [] } = useQuery(shotsQuery);
  const [file, setFile] = useState<File>();
  const [shotId, setShotId] = useState("");
  const [fromS, setFromS] = useState(0);
  const [forS, setForS] = useState("4");
  const shot = shots.find((s) => s.id === shotId);
  const take = useTake({ file, shot, fromS, forS: forS ? Number(forS) : undefined });
  const [at, setAt] = useState(0);
  useHandedOver("take", setFile);
  // A clip without a container has no player on this device.
  const isShown = (take.soFar?.times.length ?? 0) > 0;
  return (
    <Columns shares="3:2">
      <Panel heading="The clip" note={file?.name}>
        <Stack gap="3">
          <Flex gap="3" wrap="wrap" align="flex-end">
            <FileButton
              variant={file ? "outline" : "solid"}
              label="A clip"
              accept="video/*,.mp4,.mov,.webm,.mkv,.y4m"
              onFile={setFile}
            >
              {file ? "Another clip" : "Choose a clip"}
            </FileButton>
            <SelectField
              label="A take of"
              maxW="260px"
              value={shotId}
              options={[{ value: "", name: "no shot" }, ...shots.map((s) => ({ value: s.id, name: s.name }))]}
              onChange={setShotId}
            />
            <NumberField
              label="From, s"
              w="90px"
              value={fromS}
              onChange={(s) => {
                const from = Math.max(0, s ?? 0);
                setFromS(from);
                setAt(from);
              }}
            />
            <SelectField label="For" maxW="150px" value={forS} options={LENGTHS} onChange={setForS} />
          </Flex>
          {take.isPending && (
            <Text role="status">
              {take.progress === undefined
                ? "Measuring"
                : `${take.progress.decoded} frames decoded, ${take.progress.measured} of ${take.progress.windows} windows measured`}
            </Text>
          )}
          <Told measure={take} found={undefined} />
          {take.data && (
            <TakeTraces take={take.data} times={take.soFar?.times ?? []} at={at} {...(isShown && { onSeek: setAt })} />
          )}
          {take.soFar?.facts?.subtitles && <ClipSubtitles text={take.soFar.facts.subtitles} name={file?.name ?? ""} />}
        </Stack>
      </Panel>
      <Box order={{ base: take.data ? -1 : 0, lg: 0 }}>
        <Panel heading="What came out">
          {take.data ? (
            <Stack gap="4">
              {file && <TakeBeside take={take.data} shot={shot} file={file} pictures={take.soFar?.pictures ?? []} />}
              <TakeSays take={take.data} />
            </Stack>
          ) : (
            <Stack gap="3" align="flex-start">
              {shot && (
                <StandIn
                  href={`/api/sim/clip.y4m?shotId=${shot.id}`}
                  name="a simulated clip of it"
                  says="No clip yet? The simulated camera records one."
                />
              )}
              <Text color="muted">
                The shutter, blur, shake, flicker and exposure of a clip are read here, on this device. A moving camera
                and a textured subject tell most.
              </Text>
            </Stack>
          )}
        </Panel>
      </Box>
      {file && take.data && isShown && (
        <Box gridColumn={{ lg: "1 / -1" }}>
          <TakePair
            file={file}
            take={take.data}
            fromS={fromS}
            forS={forS ? Number(forS) : undefined}
            shot={shot}
            at={at}
            onAt={setAt}
          />
        </Box>
      )}
    </Columns>
  );
}
