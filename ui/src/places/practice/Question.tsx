import { Box, Button, Flex, Grid, List, Stack, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { Choice } from "../../lib/Choice";
import { Panel } from "../../lib/Panel";
import { useHotkeys } from "../../lib/useHotkeys";
import { KINDS } from "./kinds";
import { DayOf, Loops } from "./Pictures";
import { Told } from "./Told";
import type { Confidence, Session } from "./useSession";

const CONFIDENCE: { value: Confidence; name: string; key: string }[] = [
  { value: "sure", name: "Sure", key: "s" },
  { value: "think-so", name: "I think so", key: "t" },
  { value: "guess", name: "A guess", key: "g" },
];

/** One question: what is known, what is offered, and once it is answered how it comes about. */
export function Question({ session }: { session: Session }) {
  const { question, asking, marked, given } = session;
  const [order, setOrder] = useState<readonly number[]>([]);
  const heading = useRef<HTMLHeadingElement>(null);
  const seed = asking?.request.seed;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new question begins with its seed
  useEffect(() => {
    setOrder([]);
    heading.current?.focus();
  }, [seed]);
  const q = question.isPlaceholderData ? undefined : question.data;
  const isOrder = q?.form === "put-into";
  const choose = (i: number) => {
    if (!q || marked || i >= q.choices.length) return;
    if (!isOrder) return void session.answer([i]);
    const next = order.includes(i) ? order.filter((o) => o !== i) : [...order, i];
    setOrder(next);
    if (next.length === q.choices.length) void session.answer(next);
  };
  useHotkeys((key) => {
    const sure = CONFIDENCE.find((c) => c.key === key);
    if (sure && !marked) session.setConfidence(sure.value);
    else if (/^[1-9]$/.test(key) && !marked) choose(Number(key) - 1);
    else if (key === "Backspace" && isOrder && !marked) setOrder(order.slice(0, -1));
    else if (key === "Enter" && marked && document.activeElement === document.body) session.next();
    else return false;
    return true;
  });
  if (!asking) return null;
  return (
    <Panel heading={KINDS[asking.request.kind]}>
      {question.error && <Text color="breaks">{question.error.message}</Text>}
      {q && (
        <Stack gap="3" data-testid="question">
          <Text as="h2" ref={heading} tabIndex={-1} fontSize="2xl" fontWeight="bold" lineHeight="1.2" outline="none">
            {q.asks}
          </Text>
          {q.given.length > 0 && (
            <List.Root ps="5" fontSize="lg">
              {q.given.map((line) => (
                <List.Item key={line}>{line}</List.Item>
              ))}
            </List.Root>
          )}
          {q.caution && <Text color="muted">{q.caution}</Text>}
          {q.loops && <Loops loops={q.loops} isTold={marked !== undefined} />}
          {q.day && <DayOf day={q.day} isTold={marked !== undefined} />}
          {!marked && (
            <Choice
              label="How sure are you"
              options={CONFIDENCE}
              value={session.confidence}
              onChange={session.setConfidence}
            />
          )}
          {isOrder && !marked && <Text color="muted">Press them in their order.</Text>}
          <Grid
            gap="2"
            templateColumns={{ base: "1fr", sm: isOrder || isLong(q.choices) ? "1fr" : "1fr 1fr" }}
            role="group"
            aria-label="Answers"
          >
            {q.choices.map((text, i) => (
              <Offered
                key={text}
                text={text}
                number={i + 1}
                place={isOrder ? (marked ? given : order).indexOf(i) + 1 : 0}
                mark={marked ? markOf(i, marked.answer, given, isOrder) : undefined}
                onPress={() => choose(i)}
              />
            ))}
          </Grid>
          {marked && (
            <Told question={q} marked={marked} given={given} titles={asking.request.titles} onNext={session.next} />
          )}
          <Button variant="ghost" alignSelf="flex-start" onClick={session.end}>
            End the session
          </Button>
        </Stack>
      )}
    </Panel>
  );
}

const LONG = 30;
const isLong = (choices: readonly string[]): boolean => choices.some((c) => c.length > LONG);

type Mark = "right" | "wrong" | "missed" | "";

function markOf(i: number, answer: readonly number[], given: readonly number[], isOrder: boolean): Mark {
  if (isOrder) return answer.indexOf(i) === given.indexOf(i) ? "right" : "wrong";
  if (answer[0] === i) return given[0] === i ? "right" : "missed";
  return given[0] === i ? "wrong" : "";
}

const MARKS: Record<Exclude<Mark, "">, { sign: string; words: string }> = {
  right: { sign: "✓", words: "right" },
  wrong: { sign: "✗", words: "wrong" },
  missed: { sign: "✓", words: "this is right" },
};

interface OfferedProps {
  text: string;
  number: number;
  /** Where it stands in the order that is being put together, from 1; 0 for nowhere yet. */
  place: number;
  mark: Mark | undefined;
  onPress: () => void;
}

/** One answer that is offered; its mark is a sign and a word, not a colour alone. */
function Offered({ text, number, place, mark, onPress }: OfferedProps) {
  const told = mark ? MARKS[mark] : undefined;
  return (
    <Button
      variant="outline"
      h="auto"
      minH="56px"
      py="2"
      px="3"
      fontSize="lg"
      whiteSpace="normal"
      textAlign="start"
      justifyContent="flex-start"
      color="ink"
      bg={place > 0 && !told ? "accentSoft" : mark === "right" || mark === "missed" ? "holdsSoft" : "panel"}
      borderWidth={told ? "2px" : "1px"}
      borderColor={mark === "wrong" ? "breaks" : told ? "holds" : "edge"}
      aria-disabled={mark !== undefined}
      _disabled={{ opacity: 1 }}
      aria-pressed={place > 0}
      onClick={onPress}
    >
      <Flex gap="3" align="baseline" w="full">
        <Text as="span" color="muted" fontSize="sm" aria-hidden>
          {place > 0 ? `${place}.` : number}
        </Text>
        <Box flex="1">{text}</Box>
        {told && (
          <Text as="span" color={mark === "wrong" ? "breaks" : "holds"} fontWeight="bold">
            {told.sign} {told.words}
          </Text>
        )}
      </Flex>
    </Button>
  );
}
