import { Kbd, Table } from "@chakra-ui/react";
import { Keyboard } from "lucide-react";
import { useCallback, useState } from "react";
import { PictureButton } from "../lib/PictureButton";
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
      <PictureButton aria-label="Keyboard shortcuts" isForDesk onClick={() => setOpen(true)}>
        <Keyboard />
      </PictureButton>
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
