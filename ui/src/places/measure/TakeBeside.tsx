import { Button, Flex, Stack } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { rigsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { clipMark } from "../../lib/clipMark";
import { GradeTake } from "../../lib/GradeTake";
import { decimal } from "../../lib/locale";
import { sentence } from "../../lib/prose";
import { StateMark } from "../../lib/StateMark";
import { useKeepCraft } from "./useKeepCraft";
import { useKeepLight } from "./useKeepLight";
import { useKeepOutcome, useKeepTrial } from "./useKeepOutcome";

type Take = Schemas["MeasuredTakeAnswer"];
type Grade = "good" | "usable" | "bad";

interface TakeBesideProps {
  take: Take;
  shot: Schemas["StoredShot"] | undefined;
  file: File;
  pictures: readonly Blob[];
}

/** What was meant beside what came out, a sentence for each demand of the shot; findings can be taken over. */
export function TakeBeside({ take, shot, file, pictures }: TakeBesideProps) {
  const { data: rigs = [] } = useQuery(rigsQuery);
  const rig = rigs.find((r) => r.id === shot?.rigId) ?? rigs.find((r) => r.cameraId === shot?.cameraId);
  const keep = useKeepCraft(rig);
  const outcome = useKeepOutcome(shot);
  const trial = useKeepTrial(shot);
  const reading = useKeepLight(shot, file.name);
  if (!take.beside || take.beside.length === 0) return null;
  const activity = shot?.scene?.activity;
  const grade = async (grade: Grade, why?: string) => {
    const meant = take.beside?.find((b) => b.of === "shutter");
    const off = take.beside?.filter((b) => b.agrees === false).map((b) => b.words) ?? [];
    outcome.mutate({
      words: [`${grade}${why ? ` (${why})` : ""}, ${file.name}`, ...off].join("; "),
      outcome: {
        grade,
        ...(why && { why }),
        clip: await clipMark(file, pictures),
        ...(take.shutter.shutterS != null && { medianS: take.shutter.shutterS }),
        ...(meant?.expected !== undefined && { targetS: meant.expected }),
        ...(take.shake.degS != null && { shakeDegS: take.shake.degS }),
      },
    });
  };
  const takeOver = (degS: number) => {
    const { shakes = [], ...craft } = rig?.craft ?? {};
    const shakeDegS = Number(degS.toFixed(1));
    keep.mutate(
      activity
        ? { ...craft, shakes: [...shakes.filter((s) => s.activity !== activity), { activity, shakeDegS }] }
        : { ...craft, ...(shakes.length > 0 && { shakes }), shakeDegS },
    );
  };
  return (
    <Stack gap="1" data-testid="take-beside">
      {take.beside.map(({ of, agrees, words, measured, light }) => (
        <Flex key={of} gap="3" align="center" wrap="wrap">
          <StateMark state={agrees === null ? "unknown" : agrees ? "holds" : "breaks"}>{sentence(words)}</StateMark>
          {of === "shake" && agrees === false && measured !== undefined && rig && (
            <Button variant="outline" loading={keep.isPending} onClick={() => takeOver(measured)}>
              Save as its shake
            </Button>
          )}
          {light && shot?.shootId && (
            <Button variant="outline" loading={reading.isPending} onClick={() => reading.mutate(light)}>
              Save EV {decimal(light.ev100, 1)} ±{decimal(light.spreadStops, 1)} as a reading
            </Button>
          )}
          {of === "ghosting" && shot?.shootId && (
            <Button
              variant="outline"
              loading={trial.isPending}
              onClick={() =>
                trial.mutate({
                  grade: take.ghost.stabilised ? "bad" : "good",
                  ...(take.shutter.shutterS && !take.shutter.atLeast && { took: take.shutter.shutterS }),
                })
              }
            >
              Count it as a shutter test
            </Button>
          )}
        </Flex>
      ))}
      <GradeTake isBusy={outcome.isPending} onGrade={grade} />
    </Stack>
  );
}
