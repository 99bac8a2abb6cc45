import { Skeleton, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { signed } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { Panel } from "../../lib/Panel";

const NAMES: Record<Schemas["PracticeConfidenceShare"]["confidence"], string> = {
  sure: "Sure",
  "think-so": "I think so",
  guess: "A guess",
};

const month = new Intl.DateTimeFormat(undefined, { month: "long", year: "numeric" });

/** Whether one is right as often as one is sure, and how far guesses of light are off. */
export function Calibrated({ progress }: { progress: Schemas["PracticeProgress"] | undefined }) {
  if (!progress)
    return (
      <Panel heading="Your judgement">
        <Skeleton h="140px" aria-busy="true" aria-label="Working out your judgement" />
      </Panel>
    );
  const { eye, confidence } = progress;
  return (
    <Panel heading="Your judgement">
      {confidence.map((c) => (
        <Text key={c.confidence}>
          {NAMES[c.confidence]}: right {c.right} of {c.of} times, {decimal((100 * c.right) / c.of, 0)} %
        </Text>
      ))}
      {eye && (
        <Text mt="2" data-testid="eye">
          Your eye: <b>±{decimal(eye.latestStops, 1)} stops</b>
          {eye.firstStops !== undefined &&
            eye.since &&
            `, from ±${decimal(eye.firstStops, 1)} in ${month.format(new Date(eye.since))}`}
          ; on average {signed(eye.biasStops)}. Of {eye.of} guesses before a reading.
        </Text>
      )}
      {!eye && (
        <Text mt="2" color="muted">
          Guess the light before you read it on the field card: how far off you are is told here.
        </Text>
      )}
    </Panel>
  );
}
