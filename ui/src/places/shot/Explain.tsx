import { Button, CloseButton, Dialog, Portal, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/client";

/** The chain of numbers from reading to verdict, each line with its formula. */
export function Explain({ lines }: { lines: readonly Schemas["ExplainLine"][] }) {
  return (
    <Dialog.Root scrollBehavior="inside">
      <Dialog.Trigger asChild>
        <Button variant="outline">Explain the numbers</Button>
      </Dialog.Trigger>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" color="ink">
            <Dialog.Header>
              <Dialog.Title>From reading to verdict</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body tabIndex={0}>
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
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="lg" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
