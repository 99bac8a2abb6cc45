import { Box, Button, Flex, Heading, List, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/client";
import { CopyButton } from "../../lib/CopyButton";
import { Drawer } from "../../lib/Drawer";
import { iso, signed, stops } from "../../lib/format";
import { glassName, type Piece } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { errorWords, settingWords, stateOf } from "../../lib/option";
import { type State, StateMark, StateShape } from "../../lib/StateMark";
import { type Answer, type Bench, type Scene, triedWords } from "./draft";
import { Explain } from "./Explain";
import { NotJudged } from "./NotJudged";
import { Trades } from "./Trades";

type Option = Schemas["Option"];
type Saw = Schemas["Look"]["saw"];

interface VerdictProps {
  answer: Answer;
  bench: Bench;
  /** What is wrong with the input, when the answer is that of an earlier one. */
  fault: string | undefined;
  /** The trade that was made last and can be undone. */
  made: string | undefined;
  pieces: Map<string, Piece>;
  /** Gear that is only being tried. */
  whatIf: Schemas["WhatIf"] | undefined;
  onPick: (filters: string[]) => void;
  onSaw: (saw: Saw) => void;
  onTrade: (trade: Schemas["WindowTrade"]) => void;
  onUndo: () => void;
  onDropTried: () => void;
  onActivity: (activity: Scene["activity"]) => void;
}

/** The answer: which glass, what to set, what error is left and why; then what else there is. */
export function Verdict({ answer, bench, fault, made, pieces: filters, whatIf, ...on }: VerdictProps) {
  const { onPick, onSaw, onTrade, onUndo, onDropTried, onActivity } = on;
  const { chosen } = answer;
  const { recipe } = bench;
  const isLooking = answer.step !== undefined && !answer.settled;
  return (
    <Stack gap="2">
      {fault && (
        <Box bg="breaksSoft" color="breaks" rounded="md" p="3" role="status">
          <b>Cannot be answered as it stands.</b> {fault} Below is the last answer.
        </Box>
      )}
      <Stack gap="2">
        <Box aria-live="polite" data-testid="verdict">
          <Text color="muted" fontSize="sm">
            {headline(answer, isLooking)}
          </Text>
          <Heading as="h2" fontSize={{ base: "4xl", md: "3xl" }} lineHeight="1.1" data-testid="glass">
            {glassName(chosen.filters, filters, chosen.settings)}
          </Heading>
          <Text fontSize="xl" fontWeight="semibold" mt="1" data-testid="setting">
            {isLooking ? lockedWords(answer, bench) : settingWords(chosen)}
          </Text>
          {!isLooking && chosen.ring && <Text fontSize="lg">Turn the ring {chosen.ring}.</Text>}
          {!isLooking && (
            <Text fontSize="lg" data-testid="error">
              <b>{signed(chosen.leftStops)}</b>
              {errorWords(chosen)}
            </Text>
          )}
        </Box>
        {isLooking ? (
          <LookButtons onSaw={onSaw} />
        ) : (
          <Box data-testid="state">
            <StateMark state={stateOf(answer)}>{answer.gives ?? stateWords(chosen)}</StateMark>
          </Box>
        )}
        {!isLooking && chosen.couldBe && chosen.couldBe.length > 0 && (
          <Text fontSize="sm">
            Within ±{decimal(chosen.spreadStops, 1)} stops it could also{" "}
            {chosen.couldBe.map((s) => COULD[s]).join(" or ")}.
          </Text>
        )}
        {!isLooking && (answer.ifBrighter || answer.ifDarker) && (
          <Text fontSize="sm" data-testid="spares">
            Spare:{" "}
            {[
              answer.ifBrighter && `${glassName(answer.ifBrighter.filters, filters)} if it is brighter`,
              answer.ifDarker && `${glassName(answer.ifDarker.filters, filters)} if it is darker`,
            ]
              .filter(Boolean)
              .join(", ")}
          </Text>
        )}
        {!isLooking && answer.short && <Short short={answer.short} />}
        {!isLooking && answer.window && (
          <Trades window={answer.window} tried={triedWords(whatIf)} {...{ made, onTrade, onUndo, onDropTried }} />
        )}
        {warnings(chosen.filters, bench, filters).map(({ state, words }) => (
          <StateMark key={words} state={state}>
            {words}
          </StateMark>
        ))}
        {!isLooking && answer.motion?.glassOptional && (
          <StateMark state="holds">ND optional: blur will not show.</StateMark>
        )}
        {!isLooking && answer.tilt && <StateMark state={answer.tilt.state}>{answer.tilt.words}</StateMark>}
        {!isLooking && answer.missing && <NotJudged missing={answer.missing} bench={bench} onActivity={onActivity} />}
        {bench.leftOut.map((f) => (
          <Text key={f.id} fontSize="sm" color="unknown" display="flex" gap="2" alignItems="center">
            <StateShape state="unknown" /> {f.title} is left out: {f.open}
          </Text>
        ))}
        {!isLooking && (
          <Stack gap="0">
            <Others answer={answer} filters={filters} onPick={onPick} />
            <Drawer isPlain heading="Why" result={reasonsOf(answer)[0]}>
              <Stack gap="2" align="flex-start">
                <Reasons reasons={reasonsOf(answer)} />
                {answer.assumed && (
                  <Text fontSize="sm" color="muted" data-testid="assumed">
                    <b>Assumed:</b> {answer.assumed.join("; ")}.
                  </Text>
                )}
                {answer.explain && <Explain lines={answer.explain} />}
              </Stack>
            </Drawer>
            {recipe.length > 0 && (
              <Drawer isPlain heading="Also set" result={recipe[0]}>
                <Stack gap="1" as="section" aria-label="Settings recipe">
                  {recipe.map((line) => (
                    <Text key={line} fontSize="sm">
                      {line}
                    </Text>
                  ))}
                  <Box>
                    <CopyButton text={[`${bench.camera.name}: ${settingWords(chosen)}`, ...recipe].join("\n")}>
                      Copy the settings
                    </CopyButton>
                  </Box>
                </Stack>
              </Drawer>
            )}
          </Stack>
        )}
      </Stack>
    </Stack>
  );
}

/** How much light is missing, and what would help. */
function Short({ short }: { short: Schemas["ShotShort"] }) {
  return (
    <Box data-testid="short">
      <Text fontWeight="bold">{stops(short.stops)} short of light. What would help, the cheapest first:</Text>
      <List.Root as="ol" gap="1" ps="5">
        {short.helps.map((h) => (
          <List.Item key={h.words} _marker={{ color: "muted" }}>
            {h.words} (<b>{stops(h.givesStops)}</b>)
          </List.Item>
        ))}
      </List.Root>
    </Box>
  );
}

/** What speaks against the glass that is taken, and glass that is left out because it does not go. */
function warnings(on: readonly string[], bench: Bench, pieces: Map<string, Piece>): { state: State; words: string }[] {
  const fits = (bench.fits ?? []).filter((fit) => on.includes(fit.filterId));
  const title = (id: string) => pieces.get(id)?.title ?? "that glass";
  return fits.flatMap(({ standing, because, filterId }): { state: State; words: string }[] => {
    const words = `${title(filterId)}: ${because[0]}`;
    if (standing === "unknown" || standing === "computed")
      return [{ state: "unknown", words: `${words}: test it before you leave` }];
    return standing === "tried" ? [] : [{ state: "tight", words }];
  });
}

/** Why: the whole shot's reasons, and what the camera's automatic would make of the glass. */
function reasonsOf({ window, chosen, auto }: Answer): string[] {
  const [conflict] = window?.conflicts ?? [];
  const reasons = window?.verdict.because ?? chosen.reasons;
  return [...reasons.filter((r) => r !== conflict?.text), ...(auto ? [auto.words] : [])];
}

function headline(answer: Answer, isLooking: boolean): string {
  if (isLooking)
    return `Put on, lock, and look (light so far EV ${decimal(answer.step?.lowEv100, 1)} to ${decimal(answer.step?.highEv100, 1)})`;
  const light = answer.low ? `${answer.low.text} to ${answer.reading.text}` : answer.reading.text;
  if (answer.placed) return `You put on, for ${light} as typed`;
  return answer.step ? `Settled by looking: put on, for ${light}` : `Put on, for ${light} as typed`;
}

const VERDICTS: Record<Option["verdict"], string> = {
  on: "within tolerance",
  iso: "ISO makes it up",
  shutter: "faster shutter",
  dark: "too dark",
  lock: "lock shutter and ISO",
  "float-iso": "auto ISO",
  "float-shutter": "auto shutter",
};

const COULD: Record<NonNullable<Option["couldBe"]>[number], string> = {
  holds: "hold",
  tight: "be tight",
  breaks: "break",
};

const stateWords = (option: Option): string => VERDICTS[option.verdict];

/** While looking, the camera is locked where the shot wants it: at the target and base ISO. */
const lockedWords = (answer: Answer, bench: Bench): string =>
  `${answer.shutter.text} · ${iso(bench.optics.isoBase)}, locked`;

function LookButtons({ onSaw }: { onSaw: (saw: Saw) => void }) {
  return (
    <Stack gap="2" role="group" aria-label="What do you see?">
      <Text>The picture is</Text>
      <Flex gap="2">
        <Button flex="1" size="lg" px="2" variant="outline" onClick={() => onSaw("dark")}>
          Too dark
        </Button>
        <Button flex="1" size="lg" px="2" variant="outline" onClick={() => onSaw("right")}>
          Right
        </Button>
        <Button flex="1" size="lg" px="2" variant="outline" onClick={() => onSaw("bright")}>
          Too bright
        </Button>
      </Flex>
    </Stack>
  );
}

function Reasons({ reasons }: { reasons: string[] }) {
  return (
    <List.Root gap="1.5" ps="4" data-testid="reasons">
      {reasons.map((reason) => (
        <List.Item key={reason} _marker={{ color: "muted" }}>
          {reason}
        </List.Item>
      ))}
    </List.Root>
  );
}

/** The other options, best first; choosing one puts it on the rail. */
function Others({
  answer,
  filters,
  onPick,
}: {
  answer: Answer;
  filters: Map<string, Piece>;
  onPick: (ids: string[]) => void;
}) {
  const key = (option: Option) => option.filters.join();
  const others = answer.solve.options.filter((option) => key(option) !== key(answer.chosen));
  const [next] = others;
  if (!next) return null;
  return (
    <Drawer
      isPlain
      heading="Other filters"
      result={`${glassName(next.filters, filters, next.settings)} ${signed(next.errorStops)}`}
    >
      <Text color="muted" fontSize="sm">
        By exposure alone
      </Text>
      <Stack gap="0" data-testid="others">
        {others.map((option) => (
          <Button
            key={key(option)}
            variant="ghost"
            justifyContent="space-between"
            px="2"
            h="auto"
            py="1.5"
            onClick={() => onPick(option.filters)}
          >
            <Flex gap="2" align="center" color="ink" minW="0">
              <Box color={option.state}>
                <StateShape state={option.state} />
              </Box>
              <Text truncate>{glassName(option.filters, filters, option.settings)}</Text>
            </Flex>
            <Text color="muted" fontWeight="normal" whiteSpace="nowrap">
              {signed(option.errorStops)} · {option.state}
            </Text>
          </Button>
        ))}
      </Stack>
    </Drawer>
  );
}
