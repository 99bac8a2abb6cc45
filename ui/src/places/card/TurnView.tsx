import { Box, Button, Flex, Heading, List, SimpleGrid, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { together } from "../../lib/glass";
import { Lights } from "../../lib/Lights";
import { decimal } from "../../lib/locale";
import { StandingMark } from "../../lib/Standing";
import { StateMark } from "../../lib/StateMark";
import { clockIn, dayIn } from "../../lib/zone";
import { RemindButton } from "./RemindButton";
import type { Turn } from "./useCardWork";

interface TurnViewProps {
  of: Schemas["CardCamera"];
  index: number;
  zone: string;
  shownAt: number;
  onDrill: (name: string) => void;
  onPassage: () => void;
  onChecks: () => void;
}

/** One turn of a camera: the glass, what to set, what comes next, and what if it goes wrong. */
export function TurnView({ of, index, zone, shownAt, onDrill, onPassage, onChecks }: TurnViewProps) {
  const turn = of.turns[index];
  if (!turn) return null;
  const glass = glassOf(turn);
  return (
    <Stack gap="3" data-testid="turn">
      <Box>
        <Text color="muted">
          <b>{whenWords(turn)}</b> · {dayIn(turn.from, zone) !== dayIn(shownAt, zone) && `${dayIn(turn.from, zone)} `}
          {clockIn(turn.from, zone)}–{clockIn(turn.to, zone)}
          {turn.packs > 1 && ` · battery ${turn.pack} of ${turn.packs}`}
        </Text>
        <Heading as="h2" size="xl" lineClamp={2}>
          {turn.name}
        </Heading>
      </Box>
      <Box bg="panel" borderWidth="1px" borderColor="edge" rounded="xl" p="3">
        <Flex columnGap="4" rowGap="1" wrap="wrap">
          {/* In a row with the rest on a screen that is turned. */}
          <Box flex={isShort(glass) ? "1 1 0" : "1 1 300px"} minW="min-content">
            <Figure label={turn.stays ? "Filter, on already" : "Filter"} value={glass} note={slotsOf(turn)} />
          </Box>
          <Flex columnGap="4" wrap="wrap">
            <Figure label="Shutter" value={spanned(turn.set.shutter)} note={turn.set.angle} />
            <Figure label="ISO" value={spanned(turn.set.iso)} note={turn.set.fps} />
          </Flex>
        </Flex>
        <Box mt="2">
          <StateMark state={turn.state}>{turn.state === "holds" ? leftWords(turn) : turn.words}</StateMark>
          {turn.helps.map((words) => (
            <Text key={words} mt="1" fontSize="lg">
              {words}
            </Text>
          ))}
        </Box>
      </Box>
      <Box bg="panel" borderWidth="1px" borderColor="edge" rounded="xl" p="3">
        <Text color="muted" lineHeight="1.2">
          For this light
        </Text>
        <Lights lights={turn.lights} size="lg" />
      </Box>
      <Readiness turn={turn} onChecks={onChecks} />
      <NextSwap of={of} turn={turn} zone={zone} />
      {turn.standing && turn.standing.standing !== "tried" && (
        <StandingMark standing={turn.standing.standing}>{turn.standing.because}</StandingMark>
      )}
      <Section title="Set as well">
        <List.Root ps="4" fontSize="lg">
          {turn.set.recipe.map((line) => (
            <List.Item key={line}>{line}</List.Item>
          ))}
          {turn.set.recipe.length === 0 && <Text color="muted">Nothing is written for this camera.</Text>}
        </List.Root>
      </Section>
      <Section title="If it goes wrong">
        <SimpleGrid columns={2} gap="2">
          {turn.drills.map((d) => (
            <Button key={d.name} variant="outline" h="56px" whiteSpace="normal" onClick={() => onDrill(d.name)}>
              {d.title}
            </Button>
          ))}
          <Button variant="outline" h="56px" whiteSpace="normal" onClick={onPassage}>
            Tunnel or shade
          </Button>
        </SimpleGrid>
      </Section>
    </Stack>
  );
}

const WHEN: Record<Turn["when"], string> = { on: "On, ends", next: "Next,", later: "Later,", over: "Over," };

const whenWords = (turn: Turn): string => `${WHEN[turn.when]} ${turn.in}`;

/** "200 to 250" as narrow as it can be. */
const spanned = (value: string): string => value.replace(/(?<=\d) to (?=\d)/, "–");

const glassOf = (turn: Turn): string => together(turn.filters.map((f) => f.title));

const slotsOf = (turn: Turn): string | undefined => {
  const slots = turn.filters.flatMap((f) => (f.slot ? [f.slot] : []));
  return slots.length > 0 ? `slot ${slots.join(" and ")}` : undefined;
};

function leftWords(turn: Turn): string {
  const left = turn.set.leftStops;
  if (Math.abs(left) < 0.05) return "exposed as metered";
  return `${decimal(Math.abs(left), 1)} stops ${left > 0 ? "over" : "under"}`;
}

const isShort = (value: string): boolean => value.length <= 5;

/** Digits forty pixels high, where they are few enough for the line. */
const sizeOf = (value: string): string => (isShort(value) ? "60px" : value.length <= 12 ? "46px" : "40px");

function Figure({ label, value, note }: { label: string; value: string; note?: string | undefined }) {
  return (
    <Box minW="0">
      <Text color="muted" lineHeight="1.2">
        {label}
        {note && ` · ${note}`}
      </Text>
      <Text fontSize={sizeOf(value)} fontWeight="bold" lineHeight="1.05" data-testid={`figure-${label.split(",")[0]}`}>
        {value}
      </Text>
    </Box>
  );
}

/** Whether the take may begin; what stops it is said outright. */
function Readiness({ turn, onChecks }: { turn: Turn; onChecks: () => void }) {
  if (turn.when === "over") return null;
  if (turn.readiness !== "stopped") return null;
  return (
    <Button
      variant="plain"
      onClick={onChecks}
      bg="breaksSoft"
      color="breaks"
      h="auto"
      py="2"
      px="3"
      whiteSpace="normal"
      textAlign="left"
      justifyContent="flex-start"
      data-testid="stops"
    >
      <span>
        <b>Not ready: {turn.stops.length === 1 ? "1 required check" : `${turn.stops.length} required checks`}.</b>{" "}
        {turn.stops[0]}
      </span>
    </Button>
  );
}

/** The next change of glass, how long until then, and what to have in the pocket. */
function NextSwap({ of, turn, zone }: { of: Schemas["CardCamera"]; turn: Turn; zone: string }) {
  const { swap } = of;
  const pocket = [...new Set([turn.brighter, turn.darker].filter(Boolean))].join(", ");
  return (
    <Box bg="panel" borderWidth="1px" borderColor="edge" rounded="xl" p="3" data-testid="swap">
      {swap ? (
        <>
          <Text color="muted">Next swap by {clockIn(swap.due, zone)}</Text>
          <Text fontSize="40px" fontWeight="bold" lineHeight="1.1">
            {swap.in}
          </Text>
          <Text fontSize="lg">
            <b>{swap.to}</b> in place of {swap.from}
            {swap.latest && `, whose last shot ends ${clockIn(swap.latest, zone)}`}
          </Text>
          <RemindButton />
        </>
      ) : (
        <Text fontSize="lg">
          <b>No more swaps</b> for this camera
          {turn.latest && `; its last shot ends ${clockIn(turn.latest, zone)}`}
        </Text>
      )}
      <Text fontSize="lg" mt="1">
        Spare: <b>{pocket || "none needed"}</b>
      </Text>
    </Box>
  );
}

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box as="section" aria-label={title}>
      <Heading as="h3" size="md" mb="1">
        {title}
      </Heading>
      {children}
    </Box>
  );
}
