import { Button, List, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { shotAnswerQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Ladder } from "../../instruments/ladder/Ladder";
import { ShutterWindow } from "../../instruments/shutter-window/ShutterWindow";
import { StopRail } from "../../instruments/stop-rail/StopRail";
import { signed } from "../../lib/format";
import { BARE, together } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { shuttersOf } from "../../lib/option";

interface ToldProps {
  question: Schemas["PracticeQuestion"];
  marked: Schemas["PracticeMarked"];
  given: readonly number[];
  /** What own filters are called. */
  titles: Readonly<Record<string, string>> | undefined;
  onNext: () => void;
}

/** Whether it was right, and how the right answer comes about. */
export function Told({ question, marked, given, titles = {}, onNext }: ToldProps) {
  const next = useRef<HTMLButtonElement>(null);
  useEffect(() => next.current?.focus(), []);
  const right = marked.answer.map((i) => question.choices[i]).join(" · ");
  const isOrder = given.length > 1;
  return (
    <Stack gap="2" data-testid="told">
      <Text role="status" fontSize="xl" fontWeight="bold" color={marked.right ? "holds" : "breaks"}>
        {marked.right ? "✓ Right" : `✗ Wrong${offWords(marked)}${isOrder ? "" : `: ${right}`}`}
      </Text>
      <List.Root ps="5" as={isOrder ? "ol" : "ul"}>
        {marked.working.map((line) => (
          <List.Item key={line}>{line}</List.Item>
        ))}
      </List.Root>
      {marked.ladder && <Ladder steps={marked.ladder} />}
      {marked.shot && <OnItsInstrument shot={marked.shot} isWindow={question.kind === "gives-way"} titles={titles} />}
      <Button ref={next} size="xl" h="60px" onClick={onNext}>
        Next
      </Button>
    </Stack>
  );
}

function offWords({ off, unit }: Schemas["PracticeMarked"]): string {
  if (!off || !unit) return "";
  if (unit === "minutes") return `, ${decimal(Math.abs(off), 0)} minutes too ${off > 0 ? "late" : "early"}`;
  return `, off by ${signed(off)} stops`;
}

interface OnItsInstrumentProps {
  shot: Schemas["ShotRequest"];
  /** Demands are told by the shutter window, all else by the stop scale. */
  isWindow: boolean;
  titles: Readonly<Record<string, string>>;
}

/** What a question was about, as any shot is shown. */
function OnItsInstrument({ shot, isWindow, titles }: OnItsInstrumentProps) {
  const { data: answer } = useQuery(shotAnswerQuery(shot));
  if (!answer?.reading) return null;
  const stops = new Map(shot.kit.map((k) => [k.id, k.measuredStops ?? k.stops]));
  const { filters, shutterS, isoText } = answer.chosen;
  if (isWindow && answer.window) {
    const { fastestS, slowestS, text } = shuttersOf(answer.chosen);
    return (
      <ShutterWindow
        window={answer.window}
        chosenS={answer.window.verdict.shutterS}
        setting={text}
        taken={[...new Set([fastestS, slowestS])]}
        glassOf={(ids) =>
          together(
            ids.map((id) => titles[id] ?? id),
            BARE,
          )
        }
        onShutter={() => undefined}
      />
    );
  }
  return (
    <StopRail
      answer={{ ...answer, reading: answer.reading }}
      blocks={filters.map((id) => ({ id, name: titles[id] ?? id, stops: stops.get(id) ?? 0 }))}
      setting={`${shutterText(shutterS)} · ${isoText}`}
      isStale={false}
    />
  );
}
