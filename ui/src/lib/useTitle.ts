import { useEffect } from "react";

/** What the tab and the way back are called while a place is open. */
export function useTitle(...parts: (string | undefined)[]): void {
  const title = [...parts.filter(Boolean), "Pinhole"].join(" · ");
  useEffect(() => {
    document.title = title;
  }, [title]);
}
