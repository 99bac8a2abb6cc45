import { type Query, type QueryClient, QueryObserver, type QueryObserverOptions } from "@tanstack/react-query";

/** So long an answer counts as just given: nobody who draws it asks again. */
const JUST_MS = 5_000;

/** When each question that was asked ahead was answered, by the hash of its key. */
const answered = new Map<string, number>();

/** When something that is stored was last changed from here. */
let changedAt = Number.NEGATIVE_INFINITY;

/** Something that is stored was changed, as a filter that was deleted: what was answered before need not hold. */
export const noteChange = (): void => {
  changedAt = Date.now();
};

/** Asks the server a question. What it answers is undefined where it fails: whoever draws it asks again, and says so. */
export type Ask = <T, Key extends readonly unknown[]>(
  query: QueryObserverOptions<T, Error, T, T, Key>,
) => Promise<T | undefined>;

/** Asks for what a place is drawn from while its code is on its way. */
export const askAhead =
  (queries: QueryClient): Ask =>
  (query) => {
    const observer = new QueryObserver(queries, query);
    return new Promise((resolve) => {
      const letGo = observer.subscribe(({ data, isFetching, dataUpdatedAt }) => {
        if (isFetching) return;
        answered.set(observer.getCurrentQuery().queryHash, dataUpdatedAt);
        resolve(data);
      });
      setTimeout(letGo, JUST_MS); // who draws it holds it by then
    });
  };

/** Whether what is there was just answered ahead, and holds. */
export const isJustAnswered = (query: Query): boolean =>
  answered.get(query.queryHash) === query.state.dataUpdatedAt &&
  Date.now() - query.state.dataUpdatedAt < JUST_MS &&
  Date.now() - changedAt > JUST_MS && // what was under way at the change may be as it was before
  !query.state.isInvalidated;
