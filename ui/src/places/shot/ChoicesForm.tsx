import { Flex, Grid, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { presetsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Choice } from "../../lib/Choice";
import { signed } from "../../lib/format";
import { byId } from "../../lib/glass";
import { SelectField } from "../../lib/SelectField";
import type { Bench } from "./draft";

type Choices = Schemas["Choices"];

/** As near as two written numbers have to be to mean the same choice: cameras print thirds as 0.3 and 0.7. */
const isSame = (a: number, b: number): boolean => Math.abs(a - b) < 0.05;

/** The name of the accepted error that is chosen, dark and bright. */
function bandOf({ tolerance }: Choices, { bands, tolerance: usual }: Schemas["Presets"]): string {
  const is = tolerance ?? usual.tolerance;
  return bands.find((b) => isSame(b.tolerance.dark, is.dark) && isSame(b.tolerance.bright, is.bright))?.name ?? OWN;
}

/** A tolerance that is none of the usual ones, as the log suggests it. */
const OWN = "own";

function offsetOf({ offsetStops = 0 }: Choices, { offsets }: Schemas["Presets"]): string {
  return String(offsets.find((o) => isSame(o, offsetStops)) ?? "");
}

interface ChoicesFormProps {
  choices: Choices;
  bench: Bench;
  /** What the other of blur and image would put on, in words. */
  other: string | undefined;
  onChange: (choices: Choices) => void;
}

/** How this user likes it. */
export function ChoicesForm({ choices, bench, other, onChange }: ChoicesFormProps) {
  const { data: presets } = useQuery(presetsQuery);
  if (!presets) return <Skeleton h="120px" />;
  const band = bandOf(choices, presets);
  return (
    <Stack gap="3">
      <Flex gap="4" wrap="wrap">
        <Choice
          label="Tolerance"
          options={[
            ...presets.bands.map((b) => ({ value: b.name, name: b.title })),
            ...(band === OWN && choices.tolerance
              ? [{ value: OWN, name: `${signed(-choices.tolerance.dark)} ${signed(choices.tolerance.bright)}` }]
              : []),
          ]}
          value={band}
          onChange={(name) => {
            const chosen = presets.bands.find((b) => b.name === name);
            if (chosen) onChange({ ...choices, tolerance: chosen.tolerance });
          }}
        />
        <Choice
          label="Priority"
          options={[
            { value: "blur", name: "Blur: ISO gives" },
            { value: "image", name: "Image: shutter gives" },
          ]}
          value={choices.priority ?? "blur"}
          onChange={(priority) => onChange({ ...choices, priority })}
        />
        <Choice
          label="Filters stacked, at most"
          options={["1", "2", "3"].map((n) => ({ value: n, name: n }))}
          value={String(choices.maxLayers ?? bench.layers)}
          onChange={(n) => onChange({ ...choices, maxLayers: Number(n) })}
        />
        <Choice
          label="Exposure compensation"
          options={presets.offsets.map((o) => ({ value: String(o), name: o === 0 ? "0" : signed(o) }))}
          value={offsetOf(choices, presets)}
          onChange={(v) => onChange({ ...choices, offsetStops: Number(v) })}
        />
      </Flex>
      {other && <Text data-testid="other-priority">{other}</Text>}
    </Stack>
  );
}

interface FilterRolesProps {
  choices: Choices;
  bench: Bench;
  effects: readonly Schemas["EffectLine"][] | undefined;
  onChange: (choices: Choices) => void;
}

/** What each filter is for in this shot, and what effect glass does here. */
export function FilterRoles({ choices, bench, effects, onChange }: FilterRolesProps) {
  return (
    <Stack gap="3">
      <Roles choices={choices} bench={bench} onChange={onChange} />
      {effects && effects.length > 0 && <Effects effects={effects} bench={bench} />}
    </Stack>
  );
}

/** When effect glass pays, when it hurts, and what it means here. */
function Effects({ effects, bench }: { effects: readonly Schemas["EffectLine"][]; bench: Bench }) {
  const filters = byId(bench);
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", md: "minmax(0,1fr) minmax(0,1fr)" }} gap="3" data-testid="effects">
      {effects.map((e) => (
        <Stack key={e.id} gap="0.5" borderWidth="1px" borderColor="edge" rounded="md" p="3">
          <Text fontWeight="bold">{filters.get(e.id)?.title}</Text>
          <Text fontSize="sm">
            <b>Use for</b> {e.pays}
          </Text>
          <Text fontSize="sm">
            <b>Avoid with</b> {e.hurts}
          </Text>
          <Text fontSize="sm">
            <b>Position</b> {e.place}
          </Text>
          {e.words.map((words) => (
            <Text key={words} fontSize="sm" color="muted">
              {words}
            </Text>
          ))}
        </Stack>
      ))}
    </Grid>
  );
}

type Role = "case" | "asked" | "lives" | "away";

const ROLES: { value: Role; name: string }[] = [
  { value: "case", name: "as needed" },
  { value: "asked", name: "asked for" },
  { value: "lives", name: "always on" },
  { value: "away", name: "not at hand" },
];

/** What each filter is for in this shot: in the case, asked for, living on the lens, or not there. */
function Roles({ choices, bench, onChange }: Pick<ChoicesFormProps, "choices" | "bench" | "onChange">) {
  const required = choices.required ?? [];
  const mounted = choices.mounted ?? [];
  const all = bench.filters.map((f) => f.id);
  const atHand = choices.atHand ?? all;
  const roleOf = (id: string): Role => {
    if (mounted.includes(id)) return "lives";
    if (required.includes(id)) return "asked";
    return atHand.includes(id) ? "case" : "away";
  };
  const setRole = (id: string, role: Role) => {
    const { atHand: _, ...rest } = choices;
    const without = (list: readonly string[]) => list.filter((other) => other !== id);
    const there = all.filter((other) => (other === id ? role !== "away" : atHand.includes(other)));
    onChange({
      ...rest,
      required: role === "asked" ? [...without(required), id] : without(required),
      mounted: role === "lives" ? [...without(mounted), id] : without(mounted),
      ...(there.length < all.length && { atHand: there }),
    });
  };
  if (bench.filters.length === 0) return null;
  return (
    <Stack gap="1.5">
      <Text color="muted" fontSize="sm" fontWeight="medium">
        Effect filters, filters that stay on, and what is not at hand
      </Text>
      <Flex gap="2" wrap="wrap">
        {bench.filters.map((f) => (
          <SelectField
            key={f.id}
            label={f.title}
            isBeside
            w="150px"
            value={roleOf(f.id)}
            options={ROLES}
            onChange={(role) => setRole(f.id, role as Role)}
          />
        ))}
      </Flex>
    </Stack>
  );
}
