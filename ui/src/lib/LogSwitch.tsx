import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { api, unwrap } from "../api/client";
import { learnedQuery } from "../api/queries";
import { useTaughtAnew } from "../api/useTaughtAnew";
import { sayNotSaved } from "../shell/toaster";
import { TickBox } from "./TickBox";

interface LogSwitchProps {
  /** Where the log knows none of these filters, there is nothing to switch. */
  filters?: readonly { id: string }[];
  children: ReactNode;
}

/** Answers are given with what the log teaches, or without. */
export function LogSwitch({ filters, children }: LogSwitchProps) {
  const { data: learned } = useQuery(learnedQuery);
  const queries = useQueryClient();
  const anew = useTaughtAnew();
  const use = useMutation({
    scope: { id: "log-switch" }, // pressed twice, it is stored twice, in that order
    mutationFn: (used: boolean) => unwrap(api.POST("/api/learned/use", { body: { used } })),
    onSuccess: (_, used) => {
      queries.setQueryData(learnedQuery.queryKey, (before) => before && { ...before, used });
      anew();
    },
    onError: sayNotSaved,
  });
  if (!learned) return null;
  const isKnown = (id: string) => learned.filters.some((f) => f.id === id && f.records > 0);
  if (filters && !filters.some(({ id }) => isKnown(id))) return null;
  return (
    <TickBox isOn={use.isPending ? use.variables : learned.used} onChange={(used) => use.mutate(used)}>
      {children}
    </TickBox>
  );
}
