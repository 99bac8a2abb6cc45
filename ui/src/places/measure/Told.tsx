import { Button, Flex, Progress, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { StateMark } from "../../lib/StateMark";

interface ToldProps {
  measure: { isPending: boolean; error: Error | null; cancel: () => void };
  /** What the answer refuses and warns of. */
  found: Pick<Schemas["MeasuredFrameAnswer"], "refused" | "cautions"> | undefined;
}

/** What every measurement says beside its figures: that it runs, why it failed, what to know. */
export function Told({ measure, found }: ToldProps) {
  if (measure.isPending)
    return (
      <Flex gap="3" align="center" role="status" aria-label="Measuring">
        <Progress.Root value={null} flex="1" aria-label="Measuring on this device">
          <Progress.Track>
            <Progress.Range bg="accent" />
          </Progress.Track>
        </Progress.Root>
        <Button variant="outline" onClick={measure.cancel}>
          Cancel
        </Button>
      </Flex>
    );
  if (measure.error)
    return measure.error.name === "AbortError" ? (
      <Text color="muted">Cancelled.</Text>
    ) : (
      <Text role="alert" color="breaks">
        {measure.error.message}
      </Text>
    );
  if (!found || found.refused.length + found.cautions.length === 0) return null;
  return (
    <Stack gap="1">
      {found.refused.map((r) => (
        <StateMark key={r.code + r.part} state="unknown">
          {r.text}
        </StateMark>
      ))}
      {found.cautions.map((c) => (
        <Text key={c.code} color="muted">
          {c.text}
        </Text>
      ))}
    </Stack>
  );
}
