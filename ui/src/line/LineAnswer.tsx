import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { signed } from "../lib/format";
import { decimal } from "../lib/locale";
import { StateMark } from "../lib/StateMark";
import { Unread } from "./Unread";
import type { Answer, Part } from "./useLine";

interface LineAnswerProps {
  answer: Answer;
  /** Puts another text in place of a stretch of the line. */
  onReplace: (stretch: { start: number; end: number }, text: string) => void;
  /** Takes a part to the line, to be written anew. */
  onEdit: (part: Part) => void;
}

/** What a line comes to: the glass first, then how it was read, each part to be changed. */
export function LineAnswer({ answer, onReplace, onEdit }: LineAnswerProps) {
  return (
    <Stack gap="2">
      {answer.needStops !== undefined && (
        <>
          <Text fontSize="3xl" fontWeight="bold" lineHeight="1.1" data-testid="line-glass">
            {glassWords(answer.filters)}
          </Text>
          <Text fontSize="lg" data-testid="line-setting">
            {answer.setting}
          </Text>
          <StateMark state={answer.state}>{answer.gives}</StateMark>
          <Text data-testid="line-others">
            {`${needWords(answer.needStops)}${lightWords(answer)}. `}
            {answer.alternatives
              .map((other) => `${glassWords(other.filters)} ${signed(other.errorStops ?? 0)}`)
              .join(", ")}
          </Text>
          {(answer.ifBrighter || answer.ifDarker) && (
            <Text data-testid="line-pocket">
              Spare:{" "}
              {[
                answer.ifBrighter && `${glassWords(answer.ifBrighter.filters)} if it is brighter`,
                answer.ifDarker && `${glassWords(answer.ifDarker.filters)} if it is darker`,
              ]
                .filter(Boolean)
                .join(", ")}
            </Text>
          )}
        </>
      )}
      {answer.needStops === undefined && <StateMark state="unknown">{answer.words}</StateMark>}
      <Flex gap="1" wrap="wrap" role="group" aria-label="Parts of the line">
        {answer.parts.map((part) => (
          <Button
            key={`${part.kind} ${part.text} ${part.start}`}
            size="sm"
            variant="outline"
            px="2"
            fontWeight={part.assumed ? "normal" : "semibold"}
            color={part.assumed ? "muted" : "ink"}
            borderColor="edge"
            borderStyle={part.assumed ? "dashed" : "solid"}
            title={part.assumed ? `${part.kind}, assumed` : part.kind}
            aria-label={`${part.kind}: ${part.text}${part.assumed ? ", assumed" : ""}`}
            onClick={() => onEdit(part)}
          >
            {part.text}
          </Button>
        ))}
      </Flex>
      {answer.unread.map((unread) => (
        <Unread key={unread.start} unread={unread} onReplace={(text) => onReplace(unread, text)} />
      ))}
    </Stack>
  );
}

const glassWords = (filters: readonly string[]): string => filters.join(" + ") || "No filter";

const needWords = (need: number): string =>
  need >= 0 ? `Needs ${decimal(need, 1)} stops` : `${decimal(-need, 1)} stops short of light`;

function lightWords({ ev100, lowEv100, highEv100, spreadStops }: Answer): string {
  if (lowEv100 !== undefined && highEv100 !== undefined)
    return ` at the highest light, EV ${decimal(lowEv100, 1)} to ${decimal(highEv100, 1)}`;
  if (ev100 === undefined) return "";
  return `, EV ${decimal(ev100, 1)}${spreadStops && spreadStops >= 0.05 ? ` ±${decimal(spreadStops, 1)}` : ""}`;
}
