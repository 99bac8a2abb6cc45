import { startTransition, useEffect, useState } from "react";

/**
 * The value of the frame that was painted last: what hangs on it is drawn when what comes first
 * stands on the screen, and gives way to what is typed meanwhile.
 */
export function useAfterPaint<T>(value: T): T {
  const [painted, setPainted] = useState(value);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      // What a frame calls comes before it is painted, a timer after.
      timer = setTimeout(() => startTransition(() => setPainted(() => value)));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [value]);
  return painted;
}
