import { useCallback, useEffect, useState } from "react";
import { database } from "../../../offline/database";
import { type Comparison, stepsOf, type Taken } from "./steps";

/** What the comparison itself is kept under; its frames are kept under the keys of their steps. */
const PLAN = "plan";

interface State {
  comparison?: Comparison;
  taken: ReadonlyMap<string, Taken>;
  /** Why it is not kept on this device. */
  fault?: string;
}

/** A comparison under way, kept on this device frame by frame so that it survives an interruption. */
export function useComparison() {
  const [state, setState] = useState<State>();
  useEffect(() => {
    let isGone = false;
    load().then(
      (loaded) => isGone || setState(loaded),
      (cause) => isGone || setState({ taken: new Map(), fault: String(cause) }),
    );
    return () => {
      isGone = true;
    };
  }, []);
  const keep = useCallback((work: () => Promise<unknown>) => {
    work().catch((cause) => setState((now) => now && { ...now, fault: String(cause) }));
  }, []);
  const start = (comparison: Comparison) => {
    setState({ comparison, taken: new Map() });
    keep(async () => {
      const db = await database();
      await db.clear("comparison");
      await db.put("comparison", comparison, PLAN);
    });
  };
  const put = (frames: readonly (readonly [key: string, taken: Taken])[]) => {
    setState((now) => now && { ...now, taken: new Map([...now.taken, ...frames]) });
    keep(async () => {
      const db = await database();
      for (const [key, taken] of frames) await db.put("comparison", taken, key);
    });
  };
  const takeBack = (key: string) => {
    setState((now) => now && { ...now, taken: new Map([...now.taken].filter(([other]) => other !== key)) });
    keep(async () => (await database()).delete("comparison", key));
  };
  const end = () => {
    setState({ taken: new Map() });
    keep(async () => (await database()).clear("comparison"));
  };
  return { state, start, put, takeBack, end };
}

async function load(): Promise<State> {
  const db = await database();
  const comparison = (await db.get("comparison", PLAN)) as Comparison | undefined;
  if (!comparison) return { taken: new Map() };
  const kept = await Promise.all(
    stepsOf(comparison).map(async ({ key }) => [key, (await db.get("comparison", key)) as Taken | undefined] as const),
  );
  return { comparison, taken: new Map(kept.flatMap(([key, taken]) => (taken ? [[key, taken] as const] : []))) };
}
