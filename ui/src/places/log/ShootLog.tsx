import { Button, List, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { shootLogQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Panel } from "../../lib/Panel";
import { clockIn, dayIn } from "../../lib/zone";
import { ShootStory } from "./ShootStory";

/** What was ticked, read and noted on the field card of a shoot. */
export function ShootLog({ shoot }: { shoot: Schemas["StoredShoot"] }) {
  const { data: entries } = useQuery(shootLogQuery(shoot.id));
  const zone = shoot.day?.zone ?? "UTC";
  return (
    <Panel
      heading={shoot.name}
      note={entries && (entries.length === 0 ? "nothing noted" : `${entries.length} entries`)}
    >
      <ShootStory shoot={shoot} />
      {!entries && <Skeleton h="60px" />}
      {entries?.length === 0 && (
        <Stack align="flex-start" gap="2">
          <Text color="muted">Nothing was ticked, read or noted on its field card.</Text>
          <Button asChild variant="outline">
            <Link to={`/card/${shoot.id}`}>Field card</Link>
          </Button>
        </Stack>
      )}
      {entries && entries.length > 0 && (
        <List.Root
          variant="plain"
          gap="1"
          maxH="420px"
          overflowY="auto"
          tabIndex={0}
          aria-label={`Log of ${shoot.name}`}
        >
          {entries.map((entry) => (
            <List.Item key={entry.id} display="flex" gap="3">
              <Text color="muted" whiteSpace="nowrap">
                {dayIn(entry.at, zone)}, {clockIn(entry.at, zone)}
              </Text>
              <Text color="muted" minW="70px">
                {KINDS[entry.kind]}
              </Text>
              <Text>{entry.words}</Text>
            </List.Item>
          ))}
        </List.Root>
      )}
    </Panel>
  );
}

const KINDS: Record<Schemas["StoredFieldEntry"]["kind"], string> = {
  tick: "done",
  untick: "undone",
  override: "passed",
  note: "note",
  reading: "reading",
  pin: "forecast",
  outcome: "outcome",
  step: "test",
};
