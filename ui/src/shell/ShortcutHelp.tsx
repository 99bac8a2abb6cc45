import { CloseButton, Dialog, IconButton, Kbd, Portal, Table } from "@chakra-ui/react";
import { Keyboard } from "lucide-react";
import { useCallback, useState } from "react";
import { useHotkeys } from "../lib/useHotkeys";

const SHORTCUTS: [keys: string[], does: string][] = [
  [["/"], "write a quick line, such as f2 1/1250 iso50 > 50fps"],
  [["1", "–", "9"], "on a shot: put that filter on, or take it off"],
  [["0"], "on a shot: back to the best glass"],
  [["?"], "this list"],
];

/** The list of shortcuts, on ? or by its button. */
export function ShortcutHelp() {
  const [isOpen, setOpen] = useState(false);
  useHotkeys(
    useCallback((key) => {
      if (key !== "?") return false;
      setOpen(true);
      return true;
    }, []),
  );
  return (
    <Dialog.Root open={isOpen} onOpenChange={(e) => setOpen(e.open)}>
      <Dialog.Trigger asChild>
        <IconButton variant="ghost" minW="44px" aria-label="Keyboard shortcuts" hideBelow="md">
          <Keyboard />
        </IconButton>
      </Dialog.Trigger>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel">
            <Dialog.Header>
              <Dialog.Title>Keyboard shortcuts</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Table.Root size="sm">
                <Table.Body>
                  {SHORTCUTS.map(([keys, does]) => (
                    <Table.Row key={does} bg="panel">
                      <Table.Cell whiteSpace="nowrap">
                        {keys.map((key) => (key === "–" ? " to " : <Kbd key={key}>{key}</Kbd>))}
                      </Table.Cell>
                      <Table.Cell>{does}</Table.Cell>
                    </Table.Row>
                  ))}
                </Table.Body>
              </Table.Root>
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton aria-label="Close" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
