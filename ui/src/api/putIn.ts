import type { QueryClient, QueryKey } from "@tanstack/react-query";

/**
 * Puts a thing as it was stored into the list of its kind at once: what is pressed next goes on from
 * it, and not from the version before, until the list comes anew.
 */
export function putIn<T extends { id: string }>(queries: QueryClient, list: { queryKey: QueryKey }, stored: T): void {
  queries.setQueryData<T[]>(list.queryKey, (all) => all?.map((one) => (one.id === stored.id ? stored : one)));
}
