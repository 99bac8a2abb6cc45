import { Box, Button, Flex, SimpleGrid, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { remeterQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Choice } from "../../lib/Choice";
import { Drawer } from "../../lib/Drawer";
import { faultWords } from "../../lib/faults";
import { BARE, together } from "../../lib/glass";
import { LIGHT_SOURCES } from "../../lib/lightSources";
import { decimal } from "../../lib/locale";
import { PressButton } from "../../lib/PressButton";
import { sentence } from "../../lib/prose";
import { Sheet } from "../../lib/Sheet";
import { SkyChoice, SkyDetails, skyWords } from "../../lib/SkyForm";
import { StateMark } from "../../lib/StateMark";
import { TextField } from "../../lib/TextField";
import { useSettled } from "../../lib/useSettled";
import { clockIn } from "../../lib/zone";
import { toaster } from "../../shell/toaster";
import { benchOf, shotOf } from "./asked";
import { FrameBias } from "./FrameBias";
import { GuessFirst, guessWords } from "./GuessFirst";
import type { CardWork, Turn } from "./useCardWork";

type Kind = "bias" | "auto" | "meter" | "sky" | "looks" | "photo";
type Saw = Schemas["Look"]["saw"];

const KINDS = (["bias", "auto", "meter", "sky", "looks", "photo"] as const).map((value) => ({
  value,
  name: LIGHT_SOURCES[value],
}));

const SAW: { value: Saw; name: string }[] = [
  { value: "dark", name: "Too dark" },
  { value: "right", name: "Right" },
  { value: "bright", name: "Too bright" },
];
const LAST = "pinhole.remeter";

interface RemeterSheetProps {
  work: CardWork;
  turn: Turn;
  camera: string;
  onOpen: (isOpen: boolean) => void;
}

/** A reading on the spot: what it makes of the glass that is on, and pinned, of the day. */
export function RemeterSheet({ work, turn, camera, onOpen }: RemeterSheetProps) {
  const [kind, setKind] = useState<Kind>(() => (localStorage.getItem(LAST) as Kind | null) ?? "bias");
  const [typed, setTyped] = useState<Partial<Record<Kind, string>>>({});
  const [looks, setLooks] = useState<Schemas["Look"][]>([]);
  const [sky, setSky] = useState<Schemas["Sight"]>();
  const [isGuessing, setGuessing] = useState(false);
  const [guess, setGuess] = useState<number | null>(null);
  const value = typed[kind] ?? "";
  const bench = benchOf(work, turn, camera);
  const shot = shotOf(work, turn);
  const on = turn.filters.map((f) => f.id);
  const wanted = lightOf(kind, { value, looks, sky }, turn);
  const light = useSettled(wanted, 150);
  const { expected } = turn.light;
  const answer = useQuery(
    remeterQuery(
      light && bench && shot ? { bench, shot, on, light, planned: expected, shutterS: turn.set.shutterS } : null,
    ),
  );
  const choose = (next: string) => setTyped({ ...typed, [kind]: next });
  // Nothing is pinned of a reading that was before the one that stands there.
  const isLate = JSON.stringify(light) !== JSON.stringify(wanted) || answer.isPlaceholderData;
  const a = light && !isLate ? answer.data : undefined;
  const words = wordsOf(kind, { value, looks, sky });
  const pin = async () => {
    if (!a) return;
    const behind = on.length > 0 ? ` behind ${turn.glass}` : "";
    const said = `${words}${behind}, ${turn.name}`;
    await work.note({
      kind: "reading",
      turn: turn.id,
      shotId: turn.shot,
      words: said,
      reading: {
        kind: kind === "photo" ? "bias" : kind,
        source: "real",
        ev100: a.ev100,
        spreadStops: a.spreadStops,
        ...(guess !== null && { guessEv100: guess }),
        ...(isBehind(kind) && on.length > 0 && { through: { glass: on, stops: turn.set.looseStops } }),
      },
    });
    if (a.anchorEv100 !== null) {
      const waits = work.waiting.filter((w) => w.entry.kind === "pin" && !w.refused).at(-1)?.entry.anchor;
      const was = waits ?? work.card.shoot.day?.anchor;
      const anchor = { at: turn.light.at, ev100: a.anchorEv100, source: "real" as const, words: said };
      await work.note({ kind: "pin", words: said, anchor, ...(was && { was }) });
    }
    toaster.create({ title: a.anchorEv100 === null ? "Reading saved" : "Forecast corrected" });
    onOpen(false);
  };
  if (isGuessing) {
    return (
      <Sheet title="Re-meter" isOpen onOpen={onOpen} size={{ base: "full", md: "lg" }}>
        <GuessFirst
          onGuess={(ev) => {
            setGuess(ev);
            setGuessing(false);
          }}
        />
      </Sheet>
    );
  }
  return (
    <Sheet title="Re-meter" isOpen onOpen={onOpen} size={{ base: "full", md: "lg" }}>
      <Stack gap="3" pb="6">
        <Choice
          label="What shows it"
          options={KINDS}
          value={kind}
          onChange={(next) => {
            localStorage.setItem(LAST, next);
            setKind(next);
          }}
        />
        <Flex gap="3" align="center">
          <Text fontSize="lg" flex="1" data-testid="expected">
            {expectedWords(kind, turn)}
          </Text>
          {guess === null && (
            <Button variant="outline" minH="44px" onClick={() => setGuessing(true)}>
              Guess first
            </Button>
          )}
        </Flex>
        {kind === "sky" && <SkyChoice sight={sky} onChange={setSky} />}
        {kind === "looks" && (
          <Grid
            columns={3}
            options={SAW.map((s) => ({ value: s.value, name: s.name }))}
            value={looks.at(-1)?.saw}
            onChoose={(saw) => setLooks([...looks, { stops: turn.set.stops, evSet: turn.set.evSet, saw: saw as Saw }])}
          />
        )}
        {kind === "photo" && <FrameBias onBias={choose} />}
        {kind !== "sky" && kind !== "looks" && kind !== "photo" && (
          <>
            <Grid columns={4} options={chipsOf(kind, turn)} value={value} onChoose={choose} />
            <TextField
              label={kind === "meter" ? "f2 1/1250 iso50, or EV 14.3, as it shows" : "or as it shows"}
              value={value}
              onChange={choose}
              isLarge
            />
          </>
        )}
        {light && answer.error && (
          <Text color="breaks" role="alert">
            {faultWords(answer.error)}
          </Text>
        )}
        {a && <Result a={a} work={work} turn={turn} />}
        {a?.settled && guess !== null && (
          <Text fontSize="lg" data-testid="guessed">
            {guessWords(guess, a.ev100)}
          </Text>
        )}
        {kind === "sky" && sky && (
          <Drawer isPlain heading="Say more of it" result={skyWords(sky)}>
            <Stack gap="3">
              <SkyDetails sight={sky} onChange={setSky} />
            </Stack>
          </Drawer>
        )}
        {a?.settled && (
          <Button size="2xl" h="64px" position="sticky" bottom="0" onClick={pin}>
            {a.anchorEv100 === null ? "Save the reading" : "Correct the forecast"}
          </Button>
        )}
        {a?.settled && a.anchorEv100 === null && <Text color="muted">{sentence(a.unpinned ?? "")}</Text>}
      </Stack>
    </Sheet>
  );
}

/** Whether a way of reading sees through what is on. */
const isBehind = (kind: Kind): boolean => kind === "auto" || kind === "bias" || kind === "photo";

/** What is read so far, by the kind of reading. */
interface Read {
  value: string;
  looks: Schemas["Look"][];
  sky: Schemas["Sight"] | undefined;
}

/** What was read, as the computation takes it; null while there is nothing. */
function lightOf(kind: Kind, { value, looks, sky }: Read, turn: Turn): Schemas["ShotLight"] | null {
  if (kind === "sky") return sky ? { kind, sky } : null;
  if (kind === "looks") return looks.length > 0 ? { kind, looks } : null;
  if (value.trim() === "") return null;
  if (kind === "meter") return { kind, at: { text: value } };
  const glassStops = turn.set.stops;
  if (kind === "auto") return { kind, at: { shutter: value, glassStops } };
  return { kind: "bias", at: { bias: value, iso: turn.set.isoLow.toFixed(0), glassStops } };
}

function wordsOf(kind: Kind, { value, looks, sky }: Read): string {
  if (kind === "sky") return sky ? skyWords(sky) : "";
  if (kind === "looks") return SAW.find((s) => s.value === looks.at(-1)?.saw)?.name ?? "";
  if (kind === "photo") return `test frame ${value.replace("-", "−")} stops`;
  return kind === "bias" ? `bias ${value}` : kind === "auto" ? `automatic ${value}` : value;
}

function expectedWords(kind: Kind, turn: Turn): string {
  const { expected, biasStops, auto, meter } = turn.light;
  const off = ` (±${decimal(expected.spreadStops, 1)})`;
  if (kind === "bias")
    return `Forecast: bias ${signed(biasStops)}${off}, locked at ${turn.set.shutter}, ISO ${decimal(turn.set.isoLow, 0)}.`;
  if (kind === "auto") return `Forecast: ${auto}${off} at base ISO, behind ${turn.glass}.`;
  if (kind === "meter") return `Forecast: ${meter}${off}, in the open.`;
  if (kind === "sky") return `Forecast: EV ${decimal(expected.ev100, 1)}${off}.`;
  if (kind === "photo")
    return `Shoot a frame at ${turn.set.shutter}, ISO ${decimal(turn.set.isoLow, 0)}, behind ${turn.glass}.`;
  return `Look at ${turn.set.words}, behind ${turn.glass}.`;
}

function signed(stops: number): string {
  const size = decimal(Math.abs(stops), 1);
  return !/[1-9]/.test(size) ? "0" : `${stops < 0 ? "−" : "+"}${size}`;
}

interface Chip {
  value: string;
  name: string;
}

function chipsOf(kind: Kind, { light }: Turn): Chip[] {
  if (kind === "meter") return [{ value: light.meter, name: "as forecast" }];
  const texts = kind === "bias" ? light.biases : light.autos;
  return texts.map((value) => ({ value, name: value.replace("-", "−") }));
}

interface GridProps {
  columns: number;
  options: Chip[];
  value: string | undefined;
  onChoose: (value: string) => void;
}

/** Values to be hit with a cold thumb. */
function Grid({ columns, options, value, onChoose }: GridProps) {
  return (
    <SimpleGrid columns={columns} gap="2" role="group" aria-label="What it shows">
      {options.map((o) => (
        <PressButton key={o.value} isOn={o.value === value} size="large" onClick={() => onChoose(o.value)}>
          {o.name}
        </PressButton>
      ))}
    </SimpleGrid>
  );
}

/** Whether the glass that is on still serves, what to change to, and how far the plan was off. */
function Result({ a, work, turn }: { a: Schemas["RemeterAnswer"]; work: CardWork; turn: Turn }) {
  const glassOf = (ids: string[]) =>
    ids
      .map((id) => work.request.glass.find((g) => g.id === id))
      .map((g) => (g ? `${g.title}${g.slot ? ` (${g.slot})` : ""}` : "glass"));
  return (
    <Stack gap="2" role="status" data-testid="remetered">
      <StateMark state={a.serves}>
        {turn.glass}: {a.words}
      </StateMark>
      {a.settled && a.serves !== "breaks" && <Text fontSize="lg">Set {a.set.words}.</Text>}
      {a.change && (
        <Box bg="panel" borderWidth="2px" borderColor="accent" rounded="lg" p="3">
          <Text color="muted">Change to</Text>
          <Text fontSize="3xl" fontWeight="bold" lineHeight="1.15">
            {together(glassOf(a.change.filters))}
          </Text>
          <Text fontSize="lg">
            {a.change.words} · {a.change.set.words}
          </Text>
        </Box>
      )}
      {(a.ifBrighter || a.ifDarker) && (
        <Text fontSize="lg" data-testid="pocket">
          Spare:{" "}
          {[
            a.ifBrighter && `${together(glassOf(a.ifBrighter.filters), BARE)} if it is brighter`,
            a.ifDarker && `${together(glassOf(a.ifDarker.filters), BARE)} if it is darker`,
          ]
            .filter(Boolean)
            .join(", ")}
        </Text>
      )}
      {a.settled && a.serves === "breaks" && !a.change && <Text fontSize="lg">No filter in the kit does better.</Text>}
      <Flex gap="2" wrap="wrap" fontSize="lg">
        {a.settled && (
          <b>
            EV {decimal(a.ev100, 1)} ±{decimal(a.spreadStops, 1)} at {clockIn(turn.light.at, work.zone)}:
          </b>
        )}
        <span>{a.against}</span>
      </Flex>
    </Stack>
  );
}
