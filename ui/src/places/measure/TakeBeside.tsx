import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { rigsQuery } from "../../api/queries";
import { sentence } from "../../lib/prose";
import { StateMark } from "../../lib/StateMark";
import { useKeepCraft } from "./useKeepCraft";
import { useKeepOutcome } from "./useKeepOutcome";

type Take = Schemas["MeasuredTakeAnswer"];

const GRADES = [
  { grade: "good", name: "Good" },
  { grade: "usable", name: "Usable" },
  { grade: "bad", name: "Bad" },
] as const;

interface TakeBesideProps {
  take: Take;
  shot: Schemas["StoredShot"] | undefined;
  /** Of the clip. */
  name: string;
}

/** What was meant beside what came out, a sentence for each demand of the shot; a shake can be taken over. */
export function TakeBeside({ take, shot, name }: TakeBesideProps) {
  const { data: rigs = [] } = useQuery(rigsQuery);
  const rig = rigs.find((r) => r.id === shot?.rigId) ?? rigs.find((r) => r.cameraId === shot?.cameraId);
  const keep = useKeepCraft(rig);
  const outcome = useKeepOutcome(shot);
  if (!take.beside || take.beside.length === 0) return null;
  const activity = shot?.scene?.activity;
  const grade = (grade: (typeof GRADES)[number]["grade"]) => {
    const meant = take.beside?.find((b) => b.of === "shutter");
    const off = take.beside?.filter((b) => b.agrees === false).map((b) => b.words) ?? [];
    outcome.mutate({
      words: [`${grade}, ${name}`, ...off].join("; "),
      outcome: {
        grade,
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
      {take.beside.map(({ of, agrees, words, measured }) => (
        <Flex key={of} gap="3" align="center" wrap="wrap">
          <StateMark state={agrees === null ? "unknown" : agrees ? "holds" : "breaks"}>{sentence(words)}</StateMark>
          {of === "shake" && agrees === false && measured !== undefined && rig && (
            <Button variant="outline" loading={keep.isPending} onClick={() => takeOver(measured)}>
              Save as its shake
            </Button>
          )}
        </Flex>
      ))}
      <Flex gap="2" align="center" wrap="wrap" mt="1">
        <Text color="muted">This take is</Text>
        {GRADES.map(({ grade: value, name: word }) => (
          <Button key={value} variant="outline" minH="44px" loading={outcome.isPending} onClick={() => grade(value)}>
            {word}
          </Button>
        ))}
      </Flex>
    </Stack>
  );
}
