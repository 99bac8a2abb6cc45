import { Box, Flex, Grid, IconButton, Text, useBreakpointValue } from "@chakra-ui/react";
import { ArrowLeftRight, Pause, Play, StepForward } from "lucide-react";
import { useDeferredValue, useState } from "react";
import type { Schemas } from "../../api/schemas";
import { SelectField } from "../../lib/SelectField";
import { useSeen } from "../../lib/useSeen";
import { useSettled } from "../../lib/useSettled";
import { LoopView } from "./LoopView";
import { SHOWN_FPS, useLoopClock } from "./useLoopClock";

type Reference = Pick<Schemas["LoopRequest"], "show" | "filters" | "school">;

interface FramePairProps {
  shot: Schemas["ShotRequest"];
  answer: Schemas["ShotAnswer"];
  glassOf: (ids: readonly string[]) => string;
}

/** The most other glass that is offered as a reference. */
const OPTIONS = 5;

/** Drawing follows a moment after the last change. */
const PAUSE_MS = 200;

/** The setting under test beside a reference, as two short loops. */
export function FramePair({ shot, answer, glassOf }: FramePairProps) {
  const [reference, setReference] = useState<string>(JSON.stringify({ show: "automatic" }));
  const [isSwapped, setSwapped] = useState(false);
  const [ref, isSeen] = useSeen<HTMLDivElement>();
  const clock = useLoopClock(isSeen);
  const settled = useSettled(shot, PAUSE_MS);
  const frame = useDeferredValue(clock.frame);
  // Beside the other instruments a picture is no wider than a third of the window.
  const isNarrow = useBreakpointValue({ base: false, lg: true }, { ssr: false });
  const small = isNarrow && window.devicePixelRatio < 1.5;
  const views = [
    <LoopView
      key="test"
      side="test"
      request={isSeen ? { shot: settled, show: "taken", ...(small && { small }) } : null}
      frame={frame}
      isStill={clock.isStill}
    />,
    <LoopView
      key="reference"
      side="reference"
      request={isSeen ? { shot: settled, ...(JSON.parse(reference) as Reference), ...(small && { small }) } : null}
      frame={frame}
      isStill={clock.isStill}
    />,
  ];
  return (
    <Box ref={ref}>
      <Grid templateColumns={{ base: "minmax(0,1fr)", md: "minmax(0,1fr) minmax(0,1fr)", lg: "minmax(0,1fr)" }} gap="2">
        {isSwapped ? views.reverse() : views}
      </Grid>
      <Flex gap="1.5" mt="1" align="center">
        <IconButton
          variant="outline"
          size="sm"
          minW="44px"
          aria-label={clock.isPlaying ? "Pause" : "Play"}
          onClick={clock.toggle}
        >
          {clock.isPlaying ? <Pause /> : <Play />}
        </IconButton>
        <IconButton variant="outline" size="sm" minW="44px" aria-label="Step" onClick={clock.step}>
          <StepForward />
        </IconButton>
        <IconButton
          variant="outline"
          size="sm"
          minW="44px"
          aria-label="Swap sides"
          onClick={() => setSwapped(!isSwapped)}
        >
          <ArrowLeftRight />
        </IconButton>
        <SelectField
          label="Against"
          isLabelHidden
          flex="1"
          minW="0"
          value={reference}
          options={references(answer, glassOf).map(({ name, value }) => ({ name, value: JSON.stringify(value) }))}
          onChange={setReference}
        />
      </Flex>
      <Text fontSize="xs" color="muted" lineHeight="1.2">
        frame {clock.frame + 1} of 16, {SHOWN_FPS} a second · simulated
      </Text>
    </Box>
  );
}

/** What the setting can be compared with. */
function references(
  answer: Schemas["ShotAnswer"],
  glassOf: (ids: readonly string[]) => string,
): { name: string; value: Reference }[] {
  const schools = (answer.schools ?? []).map((s) => ({
    name: `approach: ${s.name}`,
    value: { show: "school", school: s.school } satisfies Reference,
  }));
  const options = answer.solve.options.slice(0, OPTIONS).map((o) => ({
    name: `filter: ${glassOf(o.filters)}`,
    value: { show: "option", filters: o.filters } satisfies Reference,
  }));
  return [{ name: "auto exposure, no filter", value: { show: "automatic" } }, ...schools, ...options];
}
