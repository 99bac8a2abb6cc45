import { Kbd } from "@chakra-ui/react";
import { Keyboard } from "lucide-react";
import { useCallback, useState } from "react";
import { PictureButton } from "../lib/PictureButton";
import { Sheet } from "../lib/Sheet";
import style from "../lib/Table.module.css";
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
        <table className={style.table}>
          <tbody>
            {SHORTCUTS.map(([keys, does]) => (
              <tr key={does}>
                <td>{keys.map((key) => (key === "–" ? " to " : <Kbd key={key}>{key}</Kbd>))}</td>
                <td>{does}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Sheet>
    </>
  );
}
