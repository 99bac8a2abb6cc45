import { Button, Flex, Stack } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { rigsQuery } from "../../api/queries";
import { sentence } from "../../lib/prose";
import { StateMark } from "../../lib/StateMark";
import { useKeepCraft } from "./useKeepCraft";

type Take = Schemas["MeasuredTakeAnswer"];

/** What was meant beside what came out, a sentence for each demand of the shot; a shake can be taken over. */
export function TakeBeside({ take, shot }: { take: Take; shot: Schemas["StoredShot"] | undefined }) {
  const { data: rigs = [] } = useQuery(rigsQuery);
  const rig = rigs.find((r) => r.id === shot?.rigId) ?? rigs.find((r) => r.cameraId === shot?.cameraId);
  const keep = useKeepCraft(rig);
  if (!take.beside || take.beside.length === 0) return null;
  const activity = shot?.scene?.activity;
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
    </Stack>
  );
}
