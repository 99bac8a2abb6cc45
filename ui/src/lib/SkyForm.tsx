import { Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../api/schemas";
import { Choice } from "./Choice";

type Sight = Schemas["Sight"];

/** What a sky is until somebody looks up. */
export const CLEAR: Sight = { sky: "clear" };

/** The words are those of the line, so that the one can be read off the other. */
export const SKIES = [
  { value: "clear", name: "clear sky" },
  { value: "hazy", name: "hazy sun" },
  { value: "gaps", name: "clouds with gaps" },
  { value: "overcast", name: "overcast" },
  { value: "heavy", name: "heavy cloud" },
] as const;
const FACINGS = [
  { value: "", name: "not said" },
  { value: "front", name: "sun behind me" },
  { value: "side", name: "sun from the side" },
  { value: "behind", name: "against the light" },
  { value: "shade", name: "open shade" },
  { value: "above", name: "ground from above" },
] as const;
const GROUNDS = [
  { value: "", name: "ordinary" },
  { value: "pale", name: "pale stone or sand" },
  { value: "snow", name: "snow" },
  { value: "water", name: "water" },
  { value: "dark", name: "dark wood" },
] as const;
const HEIGHTS = [
  { value: "", name: "not said" },
  { value: "high", name: "high" },
  { value: "middle", name: "middle" },
  { value: "low", name: "low" },
] as const;

interface SkyProps {
  sight: Sight | undefined;
  onChange: (sight: Sight) => void;
}

/** What is not said is left out, and widens the spread. */
const withSaid = (sight: Sight | undefined, change: { [K in keyof Sight]?: Sight[K] | "" }): Sight =>
  Object.fromEntries(Object.entries({ ...CLEAR, ...sight, ...change }).filter(([, word]) => word !== "")) as Sight;

/** Light judged by eye: the sky, how the sun stands to the subject, the ground, the sun's height. */
export function SkyForm(props: SkyProps) {
  return (
    <Stack gap="3">
      <SkyChoice {...props} />
      <SkyDetails {...props} />
      <Text color="muted" data-testid="sky-seen">
        {props.sight ? skyWords(props.sight) : "Look up, and say what you see."}
      </Text>
    </Stack>
  );
}

/** The sky alone, which is enough for an answer. */
export function SkyChoice({ sight, onChange }: SkyProps) {
  return (
    <Choice label="Sky" options={SKIES} value={sight?.sky} onChange={(sky) => onChange(withSaid(sight, { sky }))} />
  );
}

/** What makes a sky surer. */
export function SkyDetails({ sight, onChange }: SkyProps) {
  const said = (change: Parameters<typeof withSaid>[1]) => onChange(withSaid(sight, change));
  return (
    <>
      <Choice label="Subject" options={FACINGS} value={sight?.facing ?? ""} onChange={(facing) => said({ facing })} />
      <Choice label="Ground" options={GROUNDS} value={sight?.ground ?? ""} onChange={(ground) => said({ ground })} />
      <Choice label="Sun" options={HEIGHTS} value={sight?.height ?? ""} onChange={(height) => said({ height })} />
    </>
  );
}

/** A sky in the words of the line. */
export function skyWords({ sky, facing, ground, height }: Sight): string {
  const words = [nameOf(SKIES, sky), nameOf(FACINGS, facing), nameOf(GROUNDS, ground), height && `${height} sun`];
  return words.filter(Boolean).join(", ");
}

const nameOf = (options: readonly { value: string; name: string }[], value: string | undefined) =>
  value ? options.find((o) => o.value === value)?.name : undefined;
