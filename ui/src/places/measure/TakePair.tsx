import { Button, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { TakePlayer } from "../../instruments/take/TakePlayer";
import { FileButton } from "../../lib/FileButton";
import { Panel } from "../../lib/Panel";
import { TakeSays } from "./TakeSays";
import { Told } from "./Told";
import { useKeepOutcome } from "./useKeepOutcome";
import { useTake } from "./useTake";

interface TakePairProps {
  file: File;
  fps: number;
  fromS: number;
  forS: number | undefined;
  shot: Schemas["StoredShot"] | undefined;
}

/** A second clip beside the first: looked at in step, measured alike, and judged without knowing which is which. */
export function TakePair({ file, fps, fromS, forS, shot }: TakePairProps) {
  const [second, setSecond] = useState<File>();
  const [blind, setBlind] = useState<"known" | "hidden" | "shown">("known");
  const [isSwapped, setSwapped] = useState(false);
  const take = useTake({ file: second, shot, fromS, forS });
  const keep = useKeepOutcome(shot);
  const [left, right] = second && isSwapped ? [second, file] : [file, second];
  const judge = (better: File | undefined) => {
    setBlind("shown");
    if (!second || !shot) return;
    const other = better === file ? second : file;
    keep.mutate({
      words: better
        ? `Judged blind: ${better.name} better than ${other.name}`
        : `Judged blind: ${file.name} and ${second.name} alike`,
      outcome: {},
    });
  };
  return (
    <Panel heading="Beside another clip" note={second?.name}>
      <Stack gap="3">
        <Flex gap="2" wrap="wrap">
          <FileButton
            variant={second ? "outline" : "solid"}
            label="Another clip beside it"
            accept="video/mp4,video/webm,video/quicktime,.mp4,.mov,.webm"
            onFile={setSecond}
          >
            {second ? "Another one" : "Choose a second clip"}
          </FileButton>
          {second && blind !== "hidden" && (
            <Button
              variant="outline"
              onClick={() => {
                setSwapped(Math.random() < 0.5);
                setBlind("hidden");
              }}
            >
              Judge blind
            </Button>
          )}
        </Flex>
        {second && left && right && (
          <TakePlayer
            key={`${left.name} ${right.name}`}
            first={left}
            second={right}
            fps={fps}
            fromS={fromS}
            names={blind === "hidden" ? ["", ""] : [left.name, right.name]}
          />
        )}
        {blind === "hidden" && (
          <Flex gap="2" wrap="wrap" align="center">
            <Text>Which is better?</Text>
            <Button onClick={() => judge(left)}>The first</Button>
            <Button onClick={() => judge(right)}>The second</Button>
            <Button variant="outline" onClick={() => judge(undefined)}>
              No difference
            </Button>
          </Flex>
        )}
        {blind === "shown" && (
          <Text role="status">
            The first was {left?.name}, the second {right?.name}.
            {shot ? " Your answer stands in the log." : " Choose a shot to have answers kept in its log."}
          </Text>
        )}
        {blind !== "hidden" && (
          <Grid>
            <Told measure={take} found={undefined} />
            {take.data && <TakeSays take={take.data} />}
          </Grid>
        )}
      </Stack>
    </Panel>
  );
}
