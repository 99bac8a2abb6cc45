import { useEffect, useState } from "react";

/** The value as it was when it last stood still for a while. */
export function useSettled<T>(value: T, forMs: number): T {
  const [settled, setSettled] = useState(value);
  const text = JSON.stringify(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(JSON.parse(text) as T), forMs);
    return () => clearTimeout(timer);
  }, [text, forMs]);
  return settled;
}
