import { Flex, List, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { benchQuery, coverageQuery, shootsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { CoverageGrid } from "../../instruments/coverage/CoverageGrid";
import { byId, glassName } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { SelectField } from "../../lib/SelectField";
import { StateMark } from "../../lib/StateMark";
import { Packs } from "./Packs";

type Covered = Schemas["Covered"];

/** What light this glass covers at the looks in use, and what would close the gaps. */
export function Coverage({ cameras }: { cameras: readonly Schemas["StoredCamera"][] }) {
  const [chosen, setChosen] = useState(cameras[0]?.id ?? "");
  const [rigId, setRig] = useState("");
  const [shootId, setShoot] = useState("");
  const cameraId = cameras.some((c) => c.id === chosen) ? chosen : (cameras[0]?.id ?? "");
  const { data: bench } = useQuery(benchQuery(cameraId, rigId));
  const { data: covered, error } = useQuery(coverageQuery(cameraId, rigId, shootId));
  const { data: shoots } = useQuery(shootsQuery);
  const glassOf = (ids: readonly string[], settings?: Record<string, number>) =>
    bench ? glassName(ids, byId(bench), settings) : "";
  return (
    <Stack gap="3">
      <Flex gap="3" wrap="wrap">
        <SelectField
          label="On the camera"
          maxW="320px"
          value={cameraId}
          options={cameras.map((c) => ({ value: c.id, name: c.name }))}
          onChange={(id) => {
            setChosen(id);
            setRig("");
          }}
        />
        {bench && bench.rigs.length > 1 && (
          <SelectField
            label="Held"
            maxW="220px"
            value={bench.rig.id}
            options={bench.rigs.map((r) => ({ value: r.id, name: r.name }))}
            onChange={setRig}
          />
        )}
        <SelectField
          label="For the light of"
          maxW="260px"
          value={shootId}
          options={[{ value: "", name: "all shoots" }, ...(shoots ?? []).map((s) => ({ value: s.id, name: s.name }))]}
          onChange={setShoot}
        />
      </Flex>
      {error && <StateMark state="unknown">{error.message}</StateMark>}
      {!covered && !error && <Skeleton h="200px" />}
      {covered && bench && (
        <>
          <CoverageGrid covered={covered} glassOf={glassOf} />
          <Gaps covered={covered} />
          <Advice covered={covered} glassOf={glassOf} />
          <Packs covered={covered} cameraId={cameraId} />
        </>
      )}
    </Stack>
  );
}

/** Where no glass is on, look by look, with the one filter that closes most of it. */
function Gaps({ covered }: { covered: Covered }) {
  const lines = covered.rows.flatMap((row) => {
    const gaps = row.gaps
      .filter((g) => !g.tooDark)
      .map((g) => {
        const light = g.fromEv100 === g.toEv100 ? ev(g.fromEv100) : `${ev(g.fromEv100)} to ${ev(g.toEv100)}`;
        return `EV ${light} (${g.closes}${g.left === 0 ? "" : " for most of it"})`;
      });
    return gaps.length > 0 ? [`${row.name}: ${gaps.join(", ")}`] : [];
  });
  if (lines.length === 0) return <Text>No gaps: a filter holds wherever there is light enough.</Text>;
  return (
    <Stack as="section" gap="1" aria-label="Gaps">
      <Text>
        <b>Gaps:</b> light in which no filter holds, with what would close it.
        {covered.closer &&
          ` ${covered.closer.names[0]} would close most of all: ${covered.closer.closes} of ${covered.closer.closes + covered.closer.open} cells.`}
      </Text>
      <List.Root gap="0.5" ps="4">
        {lines.map((line) => (
          <List.Item key={line} _marker={{ color: "muted" }}>
            {line}
          </List.Item>
        ))}
      </List.Root>
    </Stack>
  );
}

const ev = (value: number): string => decimal(value, 1);

interface AdviceProps {
  covered: Covered;
  glassOf: (ids: readonly string[]) => string;
}

/** What to buy and what to carry for the shots that are stored. */
function Advice({ covered, glassOf }: AdviceProps) {
  const { single, pair, carry, spare, hopeless, idle, twins, words, shots } = covered;
  const lines = [
    ...words.map((w) => `For your shots: ${w}. Each in the surest light known for it.`),
    ...(single
      ? [`Buy first: ${single.names.join(" + ")}. It covers ${times(single.closes)} that nothing covers now.`]
      : []),
    ...(pair ? [`Or the pair ${pair.names.join(" + ")}: it covers ${times(pair.closes)}.`] : []),
    ...(carry ? [`Enough to carry for them: ${glassOf(carry)}.`] : []),
    ...(spare && carry ? [`And a spare, should the light be a stop off: ${glassOf([spare])}.`] : []),
    ...(hopeless ?? []).map((id) => `No filter of yours covers “${shots[id] ?? id}”.`),
    ...(idle.length > 0 ? [`Holds nowhere in this table: ${idle.map((id) => glassOf([id])).join(", ")}.`] : []),
    ...twins.map((pairOf) => `${pairOf.map((id) => glassOf([id])).join(" and ")} do the same.`),
  ];
  return (
    <List.Root gap="1" ps="4" data-testid="coverage-advice">
      {lines.length === 0 && <Text color="muted">Add shots with this camera to be told what to buy and carry.</Text>}
      {lines.map((line) => (
        <List.Item key={line} _marker={{ color: "muted" }}>
          {line}
        </List.Item>
      ))}
    </List.Root>
  );
}

const times = (n: number): string => (n === 1 ? "one shot" : `${n} shots`);
