import { Button, List, Stack, Text, Wrap } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { Sheet } from "../../lib/Sheet";

interface DrillSheetProps {
  drills: Schemas["CardDrill"][];
  /** The drill that is open, null for none. */
  name: string | null;
  onName: (name: string) => void;
  onOpen: (isOpen: boolean) => void;
}

/** What to do, in at most five lines that are read at arm's length. */
export function DrillSheet({ drills, name, onName, onOpen }: DrillSheetProps) {
  const drill = drills.find((d) => d.name === name) ?? drills[0];
  return (
    <Sheet title={drill?.title ?? ""} isOpen={name !== null} onOpen={onOpen} size={{ base: "full", md: "lg" }}>
      <Stack gap="5" pb="6" minH="100%" justify="space-between">
        <List.Root
          as="ol"
          gap="3"
          ps="8"
          fontSize="2xl"
          lineHeight="1.25"
          fontWeight="semibold"
          css={{ "& li::marker": { color: "inherit" } }}
          data-testid="drill"
        >
          {drill?.lines.map((line) => (
            <List.Item key={line}>{line}</List.Item>
          ))}
        </List.Root>
        <Stack gap="2">
          <Text color="muted">Something else</Text>
          <Wrap gap="2">
            {drills
              .filter((d) => d.name !== drill?.name)
              .map((d) => (
                <Button key={d.name} variant="outline" h="52px" onClick={() => onName(d.name)}>
                  {d.title}
                </Button>
              ))}
          </Wrap>
        </Stack>
      </Stack>
    </Sheet>
  );
}
