import { Button, Flex, Text } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import type { Schemas } from "../../api/schemas";
import { useTaughtAnew } from "../../api/useTaughtAnew";
import { ACTIVITIES } from "../../lib/activities";
import { decimal } from "../../lib/locale";
import { Panel } from "../../lib/Panel";
import { sayNotSaved, toaster } from "../../shell/toaster";

interface Suggestion {
  what: string;
  words: string;
  /** What taking it does. */
  take: string;
}

const APPROACHES: Record<string, string> = {
  angle: "a shutter angle",
  fixed: "a fixed shutter",
  "stabiliser-first": "the stabiliser first",
  free: "any shutter",
  automatic: "automatic exposure",
};

/** What the takes suggest; each is taken, or never made again. */
export function Suggestions({ taste }: { taste: Schemas["LogTaste"] }) {
  const anew = useTaughtAnew();
  const settle = useMutation({
    mutationFn: (body: Schemas["Settlement"]) => unwrap(api.POST("/api/learned/settle", { body })),
    onSuccess: ({ shots }, { taken }) => {
      toaster.create({ title: taken ? `Counts for new shots; ${changedWords(shots)}` : "Not suggested again" });
      anew();
    },
    onError: sayNotSaved,
  });
  const all = suggested(taste);
  if (all.length === 0) return null;
  return (
    <Panel heading="Suggested by your takes">
      {all.map(({ what, words, take }) => (
        <Flex key={what} gap="2" align="center" wrap="wrap" data-testid="suggestion">
          <Text flex="1 1 260px">{words}</Text>
          <Button loading={settle.isPending} onClick={() => settle.mutate({ what, taken: true })}>
            {take}
          </Button>
          <Button variant="outline" disabled={settle.isPending} onClick={() => settle.mutate({ what, taken: false })}>
            No, never
          </Button>
        </Flex>
      ))}
    </Panel>
  );
}

const changedWords = (shots: number): string =>
  shots === 0 ? "no shot is changed" : `${shots} ${shots === 1 ? "shot is" : "shots are"} changed`;

function suggested({ dark, bright, schools }: Schemas["LogTaste"]): Suggestion[] {
  const sides = [
    { what: "dark", side: dark, than: "darker", sign: "−" },
    { what: "bright", side: bright, than: "brighter", sign: "+" },
  ].flatMap(({ what, side, than, sign }) =>
    side.suggest
      ? {
          what,
          words: `${side.keptBeyond} of ${side.beyond} takes ${than} than your tolerance were kept: ${decimal(side.limitStops, 2)} ±${decimal(side.sdStops, 2)} stops would suit them.`,
          take: `Accept ${sign}${decimal(side.offerStops, 1)} stops`,
        }
      : [],
  );
  const approaches = schools.flatMap((s) =>
    s.suggest
      ? {
          what: `school ${s.activity}`,
          words: `${activityName(s.activity)}: ${s.used} of ${s.of} takes that were kept were shot by ${APPROACHES[s.school] ?? s.school}.`,
          take: "Use it",
        }
      : [],
  );
  return [...sides, ...approaches];
}

const activityName = (activity: string): string => ACTIVITIES[activity as keyof typeof ACTIVITIES] ?? activity;
