import { type UseQueryOptions, type UseQueryResult, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { hashOf } from "./queries";

type Query<T> = UseQueryOptions<T, Error, T, readonly unknown[]>;

/** The answer to a request, which is on its way while the change that asks is still being drawn. */
export function useComputed<T>(query: Query<T>): UseQueryResult<T> {
  useAskedAhead([query]);
  return useQuery(query);
}

/** The answers to several requests that make one; undefined until all are there. */
export function useAllComputed<T>(queries: readonly Query<T>[]): AllComputed<T> {
  useAskedAhead(queries);
  return useQueries({ queries: [...queries], combine: together }) as AllComputed<T>;
}

interface AllComputed<T> {
  answers: readonly T[] | undefined;
  error: Error | null;
  isLoading: boolean;
}

function together<T>(results: readonly UseQueryResult<T>[]): AllComputed<T> {
  const answers = results.map(({ data }) => data);
  return {
    answers: answers.every((a) => a !== undefined) ? answers : undefined,
    error: results.find((r) => r.error)?.error ?? null,
    isLoading: results.some((r) => r.isLoading),
  };
}

function useAskedAhead<T>(asked: readonly Query<T>[]): void {
  "use no memo"; // what was asked is looked up anew each time
  const queries = useQueryClient();
  for (const query of asked) {
    const isAsked = queries.getQueryCache().get(hashOf(query.queryKey)) !== undefined;
    if (query.enabled && !isAsked) void queries.prefetchQuery(query);
  }
}
