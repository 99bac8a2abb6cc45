import { useEffect } from "react";

const TEXTUAL = "input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable]";

/** Reports whether a key press belongs to what is being typed. */
const isTyping = ({ target }: KeyboardEvent): boolean => target instanceof Element && target.matches(TEXTUAL);

/**
 * Calls onKey for each plain key pressed outside of text fields and dialogs.
 * onKey returns whether it took the key.
 */
export function useHotkeys(onKey: (key: string) => boolean): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return;
      if (document.querySelector('[role="dialog"][data-state="open"]')) return;
      if (onKey(event.key)) event.preventDefault();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [onKey]);
}
