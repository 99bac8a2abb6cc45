import { Box, List, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { passageQuery, presetsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Choice } from "../../lib/Choice";
import { faultWords } from "../../lib/faults";
import { decimal } from "../../lib/locale";
import { NumberField } from "../../lib/NumberField";
import { Sheet } from "../../lib/Sheet";
import { StateMark } from "../../lib/StateMark";
import { benchOf, plannedOf, shotOf } from "./asked";
import type { CardWork, Turn } from "./useCardWork";

type Dark = NonNullable<Schemas["PassageRequest"]["dark"]>;

const DARKS: { value: Dark | "read"; name: string }[] = [
  { value: "trees", name: "Under trees" },
  { value: "lit-tunnel", name: "Lit tunnel" },
  { value: "hall", name: "Barn, garage" },
  { value: "unlit", name: "Unlit" },
  { value: "read", name: "As read" },
];

interface PassageSheetProps {
  work: CardWork;
  turn: Turn;
  camera: string;
  onOpen: (isOpen: boolean) => void;
}

/** A dark stretch on the way and its bright end: what the lock does, and what else there is. */
export function PassageSheet({ work, turn, camera, onOpen }: PassageSheetProps) {
  const [dark, setDark] = useState<Dark | "read">("trees");
  const [inside, setInside] = useState<number>();
  const { data: presets } = useQuery(presetsQuery);
  const lasts = presets?.starts.passagesS.map((s) => ({ value: String(s), name: `${s} s` })) ?? [];
  const [asked, setSeconds] = useState<number | undefined | "usual">("usual");
  const seconds = asked === "usual" ? presets?.starts.passageS : asked;
  const bench = benchOf(work, turn, camera);
  const planned = plannedOf(work, turn);
  const tolerance = shotOf(work, turn)?.choices.tolerance;
  const isAsked = bench && planned && seconds !== undefined && (dark !== "read" || inside !== undefined);
  const { data: answer, error } = useQuery(
    passageQuery(
      isAsked
        ? {
            optics: bench.optics,
            shutterS: turn.set.shutterS,
            iso: turn.set.isoLow,
            fps: planned.fps ?? 0,
            glassStops: turn.set.stops,
            looseStops: turn.set.looseStops,
            offsetStops: planned.offsetStops ?? 0,
            flies: bench.profile?.flies ?? false,
            outsideEv100: turn.light.highEv100,
            seconds,
            ...(tolerance && { tolerance }),
            ...(dark === "read" ? { insideEv100: inside ?? 0 } : { dark }),
          }
        : null,
    ),
  );
  const take = answer?.ways.find((w) => w.name === answer.take);
  return (
    <Sheet title="Tunnel or shade, and out again" isOpen onOpen={onOpen} size={{ base: "full", md: "lg" }}>
      <Stack gap="3" pb="6">
        <Choice label="What it is" options={DARKS} value={dark} onChange={setDark} />
        {dark === "read" && <NumberField label="EV inside, as read" value={inside} onChange={setInside} />}
        <Choice
          label="How long it takes"
          options={lasts}
          value={lasts.find((l) => Number(l.value) === seconds)?.value}
          onChange={(s) => setSeconds(Number(s))}
        />
        <NumberField label="or in seconds" value={seconds} onChange={setSeconds} />
        {isAsked && error && (
          <Text color="breaks" role="alert">
            {faultWords(error)}
          </Text>
        )}
        {isAsked && answer && take && (
          <Stack gap="3" data-testid="passage">
            <Text fontSize="lg">
              Inside EV {decimal(answer.insideEv100, 1)} (±{decimal(answer.spreadStops, 1)}),{" "}
              {decimal(answer.darkerStops, 1)} stops darker than outside.
            </Text>
            <Box bg="panel" borderWidth="2px" borderColor="accent" rounded="lg" p="3">
              <Text color="muted">Choose beforehand</Text>
              <Text fontSize="3xl" fontWeight="bold" lineHeight="1.15">
                {take.title}
              </Text>
              <StateMark state={take.state}>{take.words}</StateMark>
            </Box>
            {answer.ways
              .filter((w) => w.name !== take.name)
              .map((w) => (
                <Box key={w.name}>
                  <Text fontSize="lg" fontWeight="bold">
                    {w.title}
                  </Text>
                  <StateMark state={w.state}>{w.words}</StateMark>
                </Box>
              ))}
            <List.Root ps="4" fontSize="lg" fontWeight="semibold">
              {answer.cautions.map((c) => (
                <List.Item key={c}>{c}</List.Item>
              ))}
            </List.Root>
          </Stack>
        )}
      </Stack>
    </Sheet>
  );
}
