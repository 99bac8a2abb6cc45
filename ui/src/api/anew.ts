import type { QueryClient, QueryKey } from "@tanstack/react-query";

/**
 * Asks for something anew after a change. What is being asked for the first time just now may be
 * answered as it was before the change, and would not be asked again by being called stale alone.
 */
export async function anew(queries: QueryClient, queryKey: QueryKey): Promise<void> {
  await queries.cancelQueries({ queryKey });
  await queries.invalidateQueries({ queryKey });
}
