import { useIsFetching, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

/** So long a page waits for the last of its answers. */
const PATIENCE_MS = 400;

/** Whether all that a page asked for when it was opened is there, or late; true from then on. */
export function useAllThere(): boolean {
  const queries = useQueryClient();
  const [isThere, setThere] = useState(false);
  useIsFetching(); // draws again with each answer
  useEffect(() => {
    // What an answer leads to is asked for by now: what is drawn within comes before.
    if (queries.isFetching() === 0) setThere(true);
  });
  useEffect(() => {
    const late = setTimeout(() => setThere(true), PATIENCE_MS);
    return () => clearTimeout(late);
  }, []);
  return isThere;
}
