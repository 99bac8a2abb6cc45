import { IconButton, Kbd, Table } from "@chakra-ui/react";
import { Keyboard } from "lucide-react";
import { useCallback, useState } from "react";
import { Sheet } from "../lib/Sheet";
import { useHotkeys } from "../lib/useHotkeys";
import { SHORTCUTS } from "./shortcuts";

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
    <>
      <IconButton
        variant="ghost"
        minW="44px"
        aria-label="Keyboard shortcuts"
        hideBelow="md"
        onClick={() => setOpen(true)}
      >
        <Keyboard />
      </IconButton>
      <Sheet title="Keyboard shortcuts" isOpen={isOpen} onOpen={setOpen}>
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
      </Sheet>
    </>
  );
}
