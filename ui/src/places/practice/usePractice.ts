import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { practiceAnswersQuery, practiceLogQuery, progressQuery } from "../../api/queries";
import { useSendingAnswers, useUnsent } from "../../offline/practiceAnswers";
import { schedule } from "./schedule";

/** What was answered so far, what that comes to, and when each kind is due. */
export function usePractice() {
  useSendingAnswers();
  const stored = useQuery(practiceAnswersQuery);
  const log = useQuery(practiceLogQuery);
  const unsent = useUnsent();
  const answers = useMemo(
    () => [
      ...(stored.data ?? []).map(
        ({ id: _, version: __, createdAt: ___, updatedAt: ____, deletedAt: _____, ...a }) => a,
      ),
      ...unsent.map((u) => u.answer),
    ],
    [stored.data, unsent],
  );
  const guesses = log.data?.guesses ?? [];
  const { data: progress, isLoading: isProgressAwaited } = useQuery(progressQuery({ answers, guesses }));
  const due = useMemo(() => schedule(answers, log.data?.mistakes ?? []), [answers, log.data]);
  return { answers, progress, isProgressAwaited, due, isLoading: stored.isLoading || log.isLoading };
}
