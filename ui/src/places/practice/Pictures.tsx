import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Pause, Play, StepForward } from "lucide-react";
import { outingQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { DayStrip, type StripShot } from "../../instruments/day-strip/DayStrip";
import { LoopView } from "../../instruments/frame-pair/LoopView";
import { useLoopClock } from "../../instruments/frame-pair/useLoopClock";
import { BARE, together } from "../../lib/glass";

/** The loops of a question; what they show is told once it is answered. */
export function Loops({ loops, isTold }: { loops: readonly Schemas["PracticeDrawn"][]; isTold: boolean }) {
  const clock = useLoopClock(true);
  const isPair = loops.length > 1;
  return (
    <Box>
      <Grid gap="2" templateColumns={{ base: "1fr", sm: isPair ? "1fr 1fr" : "minmax(0, 480px)" }}>
        {loops.map((loop, i) => (
          <Box key={loop.show}>
            {isPair && <Text fontWeight="bold">{i === 0 ? "A" : "B"}</Text>}
            <LoopView
              side={i === 0 ? "test" : "reference"}
              request={loop}
              frame={clock.frame}
              isStill={clock.isStill}
              blind={isTold ? undefined : `Loop ${isPair ? (i === 0 ? "A" : "B") : "to be looked at"}`}
            />
          </Box>
        ))}
      </Grid>
      <Flex gap="2" mt="1">
        <Button variant="outline" minH="44px" onClick={clock.toggle}>
          {clock.isPlaying ? <Pause /> : <Play />}
          {clock.isPlaying ? "Pause" : "Play"}
        </Button>
        <Button variant="outline" minH="44px" onClick={clock.step}>
          <StepForward />
          Step
        </Button>
      </Flex>
    </Box>
  );
}

/** The day of a question as its curve; its swaps are shown once it is answered. */
export function DayOf({ day, isTold }: { day: Schemas["OutingRequest"]; isTold: boolean }) {
  const { data: answer } = useQuery(outingQuery([day], day));
  if (!answer) return null;
  const kit = new Map(day.held?.flatMap((h) => h.kit.map((k) => [k.id, k.stops])));
  const shots: StripShot[] = day.shots.map((s, i) => {
    const stack = answer.shots.find((plan) => plan.id === s.id)?.packs[0]?.stack ?? "";
    const ids = stack
      .slice(stack.indexOf(":") + 1)
      .split("+")
      .filter(Boolean);
    const isHidden = i > 0 && !isTold;
    return {
      id: s.id,
      name: s.name,
      lane: 0,
      from: Date.parse(s.from),
      minutes: s.minutes,
      glass: isHidden
        ? { name: s.name, stops: 0 }
        : { name: together(ids, BARE), stops: ids.reduce((sum, id) => sum + (kit.get(id) ?? 0), 0) },
      state: "holds",
      words: s.name,
      packs: [],
    };
  });
  return (
    <DayStrip
      from={Date.parse(day.from)}
      to={Date.parse(day.to)}
      zone={ISLAND}
      answer={isTold ? answer : { ...answer, swaps: [] }}
      lanes={["Pocket gimbal camera"]}
      shots={shots}
      anchor={null}
      chosen={null}
      onChoose={nothing}
      onMove={nothing}
      onSky={nothing}
    />
  );
}

/** The made-up days lie on an island one hour behind. */
const ISLAND = "Etc/GMT+1";
const nothing = () => undefined;
