import { Button, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import type { Schemas } from "../../api/schemas";
import { LoopView } from "../../instruments/frame-pair/LoopView";
import { TakePlayer } from "../../instruments/take/TakePlayer";
import { FileButton } from "../../lib/FileButton";
import { withError } from "../../lib/measured";
import { Panel } from "../../lib/Panel";
import { KeepWith } from "./KeepWith";
import { TakeSays } from "./TakeSays";
import { Told } from "./Told";
import { useKeepOutcome } from "./useKeepOutcome";
import { useTake } from "./useTake";

type Take = Schemas["MeasuredTakeAnswer"];

/** Why two takes could not be laid over each other. */
const WHY = {
  short: "Too short to be aligned by movement.",
  alike: "They are alike at several places: align them by hand.",
  apart: "They move with nothing in common: align them by hand.",
};

interface TakePairProps {
  file: File;
  take: Take;
  fromS: number;
  forS: number | undefined;
  shot: Schemas["StoredShot"] | undefined;
  at: number;
  onAt: (seconds: number) => void;
}

/** A clip to go through, and a second one beside it: in step, measured alike, and judged without knowing which is which. */
export function TakePair({ file, take, fromS, forS, shot, at, onAt }: TakePairProps) {
  const [second, setSecond] = useState<File>();
  const [blind, setBlind] = useState<"known" | "hidden" | "shown">("known");
  const [isSwapped, setSwapped] = useState(false);
  const [offset, setOffset] = useState(0);
  const other = useTake({ file: second, shot, fromS, forS });
  const keep = useKeepOutcome(shot);
  const align = useMutation({
    mutationFn: () => {
      const trace = ({ fps, motion, exposure }: Take) => ({
        fps,
        pairs: motion.pairs,
        meanStops: exposure.meanStops,
      });
      if (!other.data) throw new Error("The second clip is not measured yet.");
      return unwrap(api.POST("/api/calc/align", { body: { first: trace(take), second: trace(other.data) } }));
    },
    onSuccess: ({ offsetS }) => {
      if (offsetS !== null) setOffset(Math.round(offsetS * take.fps));
    },
  });
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
  const why = align.data?.why;
  return (
    <Panel heading={second ? "Beside another clip" : "Through the clip"} note={second?.name}>
      <Stack gap="3">
        <Flex gap="2" wrap="wrap">
          <FileButton
            variant="outline"
            label="Another clip beside it"
            accept="video/mp4,video/webm,video/quicktime,.mp4,.mov,.webm"
            onFile={(chosen) => {
              setOffset(0);
              setBlind("known");
              setSecond(chosen);
            }}
          >
            {second ? "Another one" : "Lay a second clip beside it"}
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
        <Grid
          gap="3"
          templateColumns={{ base: "minmax(0, 1fr)", md: shot && !second ? "repeat(2, minmax(0, 1fr))" : undefined }}
        >
          <TakePlayer
            key={second ? `${left?.name} ${right?.name}` : file.name}
            first={left ?? file}
            second={right}
            fps={take.fps}
            at={at}
            onAt={onAt}
            names={blind === "hidden" ? ["", ""] : [left?.name ?? "", right?.name ?? ""]}
            offset={isSwapped ? -offset : offset}
            {...(second && { onOffset: (frames: number) => setOffset(isSwapped ? -frames : frames) })}
          >
            {other.data && blind !== "hidden" && (
              <Button variant="outline" loading={align.isPending} onClick={() => align.mutate()}>
                Align by movement
              </Button>
            )}
          </TakePlayer>
          {shot && !second && (
            <Stack gap="1" data-testid="foreseen">
              <Text fontWeight="bold">As it was foreseen, a made-up scene</Text>
              <LoopView
                side="test"
                request={{ shot: shot.answer.request, show: "taken", small: true }}
                frame={Math.round(at * take.fps)}
              />
            </Stack>
          )}
        </Grid>
        {align.data?.darkerStops != null && second && blind !== "hidden" && (
          <Stack gap="2" data-testid="take-darker">
            <Text>
              The second is {withError(Math.abs(align.data.darkerStops), align.data.se)}{" "}
              {align.data.darkerStops < 0 ? "brighter" : "darker"}. Where both were set alike, that is what a filter
              took.
            </Text>
            {align.data.darkerStops > 0.5 && (
              <KeepWith
                fields={{
                  measuredStops: Number(align.data.darkerStops.toFixed(2)),
                  stdErrStops: Number(align.data.se.toFixed(2)),
                }}
                note={`clips ${file.name} and ${second.name}`}
              />
            )}
          </Stack>
        )}
        {(why || align.error) && <Text role="status">{why ? WHY[why] : align.error?.message}</Text>}
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
        {second && blind !== "hidden" && (
          <Grid>
            <Told measure={other} found={undefined} />
            {other.data && <TakeSays take={other.data} />}
          </Grid>
        )}
      </Stack>
    </Panel>
  );
}
