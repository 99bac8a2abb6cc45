import { IconButton, Kbd, Table } from "@chakra-ui/react";
import { Keyboard } from "lucide-react";
import { useCallback, useState } from "react";
import { Sheet } from "../lib/Sheet";
import { useHotkeys } from "../lib/useHotkeys";

const SHORTCUTS: [keys: string[], does: string][] = [
  [["/"], "write a quick line, such as f2 1/1250 iso50 > 50fps"],
  [["1", "–", "9"], "on a shot: put that filter on, or take it off"],
  [["0"], "on a shot: back to the best filter"],
  [["←", "→"], "on the shutter window: the camera's next step; on the coverage: the next cell"],
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
