import { type UseQueryOptions, type UseQueryResult, useQuery, useQueryClient } from "@tanstack/react-query";
import { hashOf } from "./queries";

/** The answer to a request, which is on its way while the change that asks is still being drawn. */
export function useComputed<T>(query: UseQueryOptions<T, Error, T, readonly unknown[]>): UseQueryResult<T> {
  "use no memo"; // what was asked is looked up anew each time
  const queries = useQueryClient();
  const isAsked = queries.getQueryCache().get(hashOf(query.queryKey)) !== undefined;
  if (query.enabled && !isAsked) void queries.prefetchQuery(query);
  return useQuery(query);
}
