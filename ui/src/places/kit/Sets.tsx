import { Flex, Skeleton, Slider, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import * as z from "zod/mini";
import { compareQuery, filtersQuery, rigsQuery, setsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { FLARE_GRADES } from "../../lib/flare";
import { decimal } from "../../lib/locale";
import { sentence } from "../../lib/prose";
import { SelectField } from "../../lib/SelectField";
import { Table } from "../../lib/Table";
import cell from "../../lib/Table.module.css";
import { amountOf } from "../../lib/units";
import { paint } from "../../theme/paint";

type Weights = Schemas["SetWeights"];
type Criterion = keyof Weights;

interface Row {
  name: string;
  write: (v: number) => string;
}

const ROWS: Record<Criterion, Row> = {
  fit: { name: "Fit", write: (v) => `${Math.round(v * 100)} %` },
  truth: { name: "Strength error", write: (v) => `${decimal(v, 2)} stops` },
  tint: { name: "Colour shift", write: (v) => `${decimal(v, 2)} stops` },
  corners: { name: "Vignetting", write: (v) => `${decimal(v, 2)} stops` },
  flare: { name: "Flare", write: (v) => FLARE_GRADES[Math.round(v)] ?? "heavy" },
  sharpness: { name: "Sharpness loss", write: (v) => `${decimal(v, 0)} %` },
  mass: { name: "Weight", write: (v) => amountOf("mass", v) },
  case: { name: "Slots", write: (v) => `${Math.round(v * 100)} %` },
  price: { name: "Price", write: (v) => decimal(v, 2) },
};
const CRITERIA = Object.keys(ROWS) as Criterion[];

const KEY = "pinhole.setWeights";
const weightsShape = z.object(
  Object.fromEntries(CRITERIA.map((k) => [k, z.number().check(z.minimum(0), z.maximum(5))])) as Record<
    Criterion,
    z.ZodMiniNumber
  >,
);

/** The weights that were set on this device, none at first. */
function useWeights(): [Weights | undefined, (w: Weights) => void] {
  const [weights, setWeights] = useState<Weights | undefined>(() => {
    try {
      const kept = weightsShape.safeParse(JSON.parse(localStorage.getItem(KEY) ?? "null"));
      return kept.data;
    } catch {
      return undefined;
    }
  });
  return [
    weights,
    (w) => {
      setWeights(w);
      localStorage.setItem(KEY, JSON.stringify(w));
    },
  ];
}

/** The first rig on whose camera there are sets to compare. */
function comparable(rigs: readonly Schemas["StoredRig"][], filters: readonly Schemas["ShownFilter"][]) {
  const setsOf = (cameraId: string) =>
    new Set(filters.filter((f) => f.set && f.cameras.includes(cameraId)).map((f) => f.set));
  return rigs.find((r) => setsOf(r.cameraId).size > 1);
}

interface SetsProps {
  cameras: readonly Schemas["StoredCamera"][];
  /** The id of the rig that is shown first. */
  on?: string;
}

/** Sets of filters side by side on one rig, weighed as their owner wishes. */
export function Sets({ cameras, on }: SetsProps) {
  const { data: rigs } = useQuery(rigsQuery);
  const { data: filters } = useQuery(filtersQuery);
  const [chosen, setChosen] = useState(on ?? "");
  const [own, setWeights] = useWeights();
  const first = rigs && filters && (comparable(rigs, filters) ?? rigs[0]);
  const rigId = rigs?.some((r) => r.id === chosen) ? chosen : (first?.id ?? "");
  const { data: sets } = useQuery(setsQuery(rigId));
  const isWeighed = !own || Object.values(own).some((w) => w > 0);
  const { data: answer } = useQuery(
    compareQuery(
      sets && sets.length > 1 && isWeighed
        ? { sets: sets.map(({ filters: _f, missing: _m, ...figures }) => figures), ...(own && { weights: own }) }
        : null,
    ),
  );
  const weights = own ?? answer?.weights;
  if (!rigs || !sets) return <Skeleton h="200px" />;
  const nameOf = (cameraId: string) => cameras.find((c) => c.id === cameraId)?.name ?? "a camera";
  return (
    <Stack gap="3">
      <SelectField
        label="On the rig"
        maxW="420px"
        value={rigId}
        options={rigs.map((r) => ({ value: r.id, name: `${nameOf(r.cameraId)}, ${r.name}` }))}
        onChange={setChosen}
      />
      {sets.length < 2 && (
        <Text color="muted">Name the set that filters came in, in their sheets: two sets can be compared here.</Text>
      )}
      {sets.length > 0 && (
        <>
          <Text fontSize="lg" fontWeight="bold" aria-live="polite" data-testid="sets-words">
            {sets.length > 1 && (isWeighed ? sentence(answer?.words ?? "…") : "Give something a weight.")}
          </Text>
          <Table
            label="Sets side by side"
            heads={["What counts", "How much"]}
            moreHeads={sets.map((s) => (
              <th key={s.name}>
                <span style={{ color: paint.ink }}>{s.name}</span> {s.filters.length}{" "}
                {s.filters.length === 1 ? "filter" : "filters"}
              </th>
            ))}
          >
            <tr>
              <td className={cell.strong} colSpan={2}>
                In all, out of 100
              </td>
              {sets.map((s, i) => {
                const score = answer?.scores[i];
                return (
                  <td key={s.name} className={cell.strong}>
                    {score && (
                      <Flex gap="2" align="center">
                        {range(score.least, score.most)}
                        <Bar least={score.least} most={score.most} />
                      </Flex>
                    )}
                  </td>
                );
              })}
            </tr>
            {CRITERIA.map((k) => (
              <tr key={k}>
                <td>{ROWS[k].name}</td>
                <td style={{ width: 190 }}>
                  {weights && (
                    <Weight
                      name={ROWS[k].name}
                      value={weights[k]}
                      onChange={(v) => setWeights({ ...weights, [k]: v })}
                    />
                  )}
                </td>
                {sets.map((s, i) => (
                  <td key={s.name}>
                    {s[k] === undefined ? (
                      <Text color="unknown" fontStyle="italic">
                        not known: {s.missing[k]}
                      </Text>
                    ) : (
                      <Flex gap="2" align="center">
                        {ROWS[k].write(s[k])}
                        {answer && (
                          <Bar least={answer.scores[i]?.worth[k] ?? 0} most={answer.scores[i]?.worth[k] ?? 0} />
                        )}
                      </Flex>
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </Table>
          <Text color="muted" fontSize="sm">
            Pale: possible range, while something is not known.
          </Text>
        </>
      )}
    </Stack>
  );
}

function range(least: number, most: number): string {
  const [a, b] = [Math.round(least * 100), Math.round(most * 100)];
  return a === b ? `${a}` : `${a} to ${b}`;
}

/** What a figure is worth, and what it may be. */
function Bar({ least, most }: { least: number; most: number }) {
  return (
    <svg width="90" height="12" aria-hidden="true">
      <rect x="0" y="1" width="90" height="10" fill="var(--chakra-colors-page)" stroke="var(--chakra-colors-edge)" />
      <rect x="0" y="1" width={90 * most} height="10" fill="var(--chakra-colors-accent-soft)" />
      <rect x="0" y="1" width={90 * least} height="10" fill="var(--chakra-colors-accent)" />
    </svg>
  );
}

function Weight({ name, value, onChange }: { name: string; value: number; onChange: (v: number) => void }) {
  return (
    <Slider.Root
      aria-label={[`Weight of: ${name}`]}
      min={0}
      max={5}
      step={0.5}
      value={[value]}
      onValueChange={(e) => onChange(e.value[0] ?? 0)}
      minW="150px"
    >
      <Flex align="center" gap="2" minH="44px">
        <Slider.Control flex="1">
          <Slider.Track bg="edge">
            <Slider.Range bg="accent" />
          </Slider.Track>
          <Slider.Thumb index={0} borderColor="accent" />
        </Slider.Control>
        <Slider.ValueText w="28px" />
      </Flex>
    </Slider.Root>
  );
}
