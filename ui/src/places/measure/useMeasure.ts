import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { type Measured, measureHere, type Part } from "../../api/here/measure";

/** A measurement: asked with files, cancelled, answered. */
export function useMeasure<N extends keyof Measured>(name: N) {
  const running = useRef<AbortController | null>(null);
  const measure = useMutation({
    mutationFn: (parts: readonly Part[]) => {
      running.current?.abort();
      running.current = new AbortController();
      return measureHere(name, parts, running.current.signal);
    },
  });
  return { ...measure, cancel: () => running.current?.abort() };
}
