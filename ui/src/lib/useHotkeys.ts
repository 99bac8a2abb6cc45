import { useEffect } from "react";

/** Reports whether a key press belongs to what is being typed. */
function isTyping(event: KeyboardEvent): boolean {
  const target = event.target;
  return (
    target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

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
