import { Button, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Schemas } from "../../api/schemas";
import { Sheet } from "../../lib/Sheet";

/** The chain of numbers from reading to verdict, each line with its formula. */
export function Explain({ lines }: { lines: readonly Schemas["ExplainLine"][] }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button variant="outline" onClick={() => setOpen(true)}>
        Explain the numbers
      </Button>
      <Sheet title="From reading to verdict" isOpen={isOpen} onOpen={setOpen}>
        <Stack as="ol" gap="3" data-testid="explain">
          {lines.map((line) => (
            <Stack as="li" key={line.name} gap="0">
              <Text fontWeight="bold">{line.name}</Text>
              <Text color="muted">{line.formula}</Text>
              <Text>
                {line.numbers} = <b>{line.result}</b>
              </Text>
            </Stack>
          ))}
        </Stack>
      </Sheet>
    </>
  );
}
