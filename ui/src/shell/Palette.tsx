import { Dialog, Portal } from "@chakra-ui/react";
import { Search } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { lazily } from "../lib/lazily";
import { loadAhead } from "../lib/loadAhead";
import { PictureButton } from "../lib/PictureButton";
import { useOnce } from "../lib/useOnce";

// What is found by typing comes in a quiet moment, or with the first time it is opened.
const Found = lazily(async () => (await import("./Found")).Found);

/** Notes what has the focus, unless the dialog has it already. */
function noteFocus(before: React.RefObject<Element | null>): void {
  const focused = document.activeElement;
  if (!focused?.closest("[role=dialog]")) before.current = focused;
}

/** Everything that can be gone to or done, found by typing: on Ctrl+K or by its button. */
export function Palette() {
  const [isOpen, setOpen] = useState(false);
  const wasOpened = useOnce(isOpen);
  // Its field takes the focus before the dialog could note where it was.
  const before = useRef<Element | null>(null);
  useEffect(() => loadAhead(Found.load), []);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "k") return;
      event.preventDefault();
      noteFocus(before);
      setOpen((was) => !was);
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
  return (
    <>
      <PictureButton
        aria-label="Go to, or do"
        onClick={() => {
          noteFocus(before);
          setOpen(true);
        }}
      >
        <Search />
      </PictureButton>
      {wasOpened && (
        <Dialog.Root
          open={isOpen}
          onOpenChange={(e) => setOpen(e.open)}
          placement="top"
          finalFocusEl={() => before.current as HTMLElement | null}
        >
          <Portal>
            <Dialog.Backdrop />
            <Dialog.Positioner>
              <Dialog.Content bg="panel" color="ink" aria-label="Go to, or do">
                {isOpen && <Found onDone={() => setOpen(false)} />}
              </Dialog.Content>
            </Dialog.Positioner>
          </Portal>
        </Dialog.Root>
      )}
    </>
  );
}
