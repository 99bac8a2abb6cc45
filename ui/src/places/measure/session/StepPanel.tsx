import { Button, Flex, Progress, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, unwrap } from "../../../api/client";
import { PICTURES } from "../../../api/here/pixels";
import { filtersQuery } from "../../../api/queries";
import { GONE } from "../../../lib/glass";
import { withError } from "../../../lib/measured";
import { Panel } from "../../../lib/Panel";
import { TextField } from "../../../lib/TextField";
import { TargetDrawing } from "../TargetDrawing";
import { Told } from "../Told";
import { useMeasure } from "../useMeasure";
import { partsOf } from "./measurements";
import { type Comparison, pairOf, type Step, type Taken } from "./steps";
import { TARGETS } from "./targets";

interface StepPanelProps {
  comparison: Comparison;
  steps: readonly Step[];
  step: Step;
  taken: ReadonlyMap<string, Taken>;
  onTaken: (frames: readonly (readonly [string, Taken])[]) => void;
  onBack: (key: string) => void;
  onEnd: () => void;
}

/** The next frame to take, large enough to be read beside a tripod, and how the last one came out. */
export function StepPanel({ comparison, steps, step, taken, onTaken, onBack, onEnd }: StepPanelProps) {
  const { data: filters = [] } = useQuery(filtersQuery);
  const chooser = useRef<HTMLInputElement>(null);
  const [exposure, setExposure] = useState("");
  const at = steps.indexOf(step);
  const last = steps[at - 1];
  const words = TARGETS[step.target];
  const nameOf = (id: string) => filters.find((f) => f.id === id)?.title ?? GONE;
  const whatIsOn = step.filterId
    ? nameOf(step.filterId)
    : step.key === "wall last"
      ? "No filter, once more"
      : "No filter";
  // Frames that come from a card in one go are those of this step and the next ones.
  const take = (files: readonly File[]) => {
    const sorted = files.toSorted((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }));
    const open = steps.slice(at);
    const said = exposure.trim() && { exposure: exposure.trim() };
    onTaken(sorted.slice(0, open.length).map((file, i) => [open[i]?.key ?? "", { file, ...said }] as const));
    setExposure("");
  };
  const simulate = useMutation({
    mutationFn: () => simulatedFrame(comparison, steps, step),
    onSuccess: (file) => take([file]),
  });
  return (
    <Panel heading={words.heading} note={`frame ${at + 1} of ${steps.length}`}>
      <Stack gap="4">
        <Progress.Root value={at} max={steps.length} aria-label="Frames taken">
          <Progress.Track>
            <Progress.Range bg="accent" />
          </Progress.Track>
        </Progress.Root>
        <Text fontSize="4xl" fontWeight="bold" lineHeight="1.1" data-testid="step">
          {whatIsOn}
        </Text>
        <Flex gap="4" wrap="wrap">
          <TargetDrawing target={step.target} />
          <Text flex="1" minW="240px">
            {words.how}
          </Text>
        </Flex>
        {step.target === "edge" && (
          <Button asChild variant="outline" alignSelf="flex-start">
            <a href="/api/measure/target.pdf" download>
              Print the target
            </a>
          </Button>
        )}
        <Flex gap="3" wrap="wrap" align="flex-end">
          <input
            ref={chooser}
            type="file"
            accept={PICTURES}
            multiple
            aria-label="Frames of this step and the next"
            hidden
            onChange={(e) => {
              take([...(e.target.files ?? [])]);
              e.target.value = "";
            }}
          />
          <Button minH="56px" fontSize="lg" onClick={() => chooser.current?.click()}>
            Choose its frame
          </Button>
          <Button minH="56px" variant="outline" loading={simulate.isPending} onClick={() => simulate.mutate()}>
            Simulated camera
          </Button>
          <TextField
            label="Exposure"
            w="200px"
            helper="1/500 iso100, unless EXIF says"
            value={exposure}
            onChange={setExposure}
          />
        </Flex>
        {simulate.error && (
          <Text role="alert" color="breaks">
            {simulate.error.message}
          </Text>
        )}
        {last && <LastFrame key={last.key} comparison={comparison} taken={taken} step={last} nameOf={nameOf} />}
        <Flex gap="3" wrap="wrap">
          {last && (
            <Button variant="outline" minH="44px" onClick={() => onBack(last.key)}>
              Take the last one again
            </Button>
          )}
          {step.filterId && (
            <Button variant="outline" minH="44px" onClick={() => onTaken([[step.key, {}]])}>
              Leave it out
            </Button>
          )}
          <Button variant="ghost" minH="44px" onClick={onEnd}>
            End without saving
          </Button>
        </Flex>
      </Stack>
    </Panel>
  );
}

interface LastFrameProps {
  comparison: Comparison;
  taken: ReadonlyMap<string, Taken>;
  step: Step;
  nameOf: (id: string) => string;
}

/** What the frame before says by itself: a bad one is shot again while the camera still stands there. */
function LastFrame({ comparison, taken, step, nameOf }: LastFrameProps) {
  const filter = useMeasure("filter");
  const { mutate } = filter;
  const pair = step.filterId && step.target === "wall" ? pairOf(comparison, taken, "wall", step.filterId) : undefined;
  const parts = pair && partsOf(pair);
  const latest = useRef(parts);
  latest.current = parts;
  useEffect(() => {
    if (latest.current) mutate(latest.current);
  }, [mutate]);
  if (!step.filterId || !pair) return null;
  return (
    <Stack gap="1" data-testid="so-far">
      {filter.data?.stops != null && (
        <Text>
          {nameOf(step.filterId)}: {withError(filter.data.stops, filter.data.stdErrorStops)} so far
        </Text>
      )}
      <Told measure={filter} found={filter.data && { refused: filter.data.refused, cautions: [] }} />
    </Stack>
  );
}

/** A frame of the simulated camera, which says in its name that it is one. */
async function simulatedFrame(comparison: Comparison, steps: readonly Step[], step: Step): Promise<File> {
  const frame = steps.filter((other) => other.target === step.target).indexOf(step);
  const query = { frame, rigId: comparison.rigId, ...(step.filterId && { filterId: step.filterId }) };
  const picture = await unwrap(
    api.GET("/api/sim/target/{target}", { params: { path: { target: step.target }, query }, parseAs: "blob" }),
  );
  return new File([picture as unknown as Blob], `simulated-${step.key}.png`, { type: "image/png" });
}
