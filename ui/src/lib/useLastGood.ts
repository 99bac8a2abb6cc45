import { useRef } from "react";

/** The last value there was, while there is none: of the last input that could be answered. */
export function useLastGood<T>(value: T | undefined): T | undefined {
  const last = useRef(value);
  if (value) last.current = value;
  return last.current;
}
