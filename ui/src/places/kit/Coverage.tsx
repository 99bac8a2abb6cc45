import { List, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { benchQuery, coverageQuery } from "../../api/queries";
import { CoverageGrid } from "../../instruments/coverage/CoverageGrid";
import { byId, glassName } from "../../lib/glass";
import { SelectField } from "../../lib/SelectField";
import { StateMark } from "../../lib/StateMark";

type Covered = Schemas["Covered"];

/** What light this glass covers at the looks in use, and what would close the gaps. */
export function Coverage({ cameras }: { cameras: readonly Schemas["StoredCamera"][] }) {
  const [chosen, setChosen] = useState(cameras[0]?.id ?? "");
  const cameraId = cameras.some((c) => c.id === chosen) ? chosen : (cameras[0]?.id ?? "");
  const { data: bench } = useQuery(benchQuery(cameraId));
  const { data: covered, error } = useQuery(coverageQuery(cameraId));
  const glassOf = (ids: readonly string[], settings?: Record<string, number>) =>
    bench ? glassName(ids, byId(bench), settings) : "";
  return (
    <Stack gap="3">
      <SelectField
        label="On the camera"
        maxW="360px"
        value={cameraId}
        options={cameras.map((c) => ({ value: c.id, name: c.name }))}
        onChange={setChosen}
      />
      {error && <StateMark state="unknown">{error.message}</StateMark>}
      {!covered && !error && <Skeleton h="200px" />}
      {covered && bench && (
        <>
          <CoverageGrid covered={covered} glassOf={glassOf} />
          <Advice covered={covered} glassOf={glassOf} />
        </>
      )}
    </Stack>
  );
}

interface AdviceProps {
  covered: Covered;
  glassOf: (ids: readonly string[]) => string;
}

/** What to buy and what to carry for the shots that are stored. */
function Advice({ covered, glassOf }: AdviceProps) {
  const { single, pair, carry, hopeless, idle, twins, words, shots } = covered;
  const lines = [
    ...words.map((w) => `For your shots: ${w}.`),
    ...(single
      ? [`Buy first: ${single.names.join(" + ")}. It serves ${times(single.closes)} that nothing does now.`]
      : []),
    ...(pair ? [`Or the pair ${pair.names.join(" + ")}: it serves ${times(pair.closes)}.`] : []),
    ...(carry ? [`Enough to carry for them: ${glassOf(carry)}.`] : []),
    ...(hopeless ?? []).map((id) => `No glass of yours serves “${shots[id] ?? id}”.`),
    ...(idle.length > 0
      ? [`Holds nowhere in this table by itself or stacked: ${idle.map((id) => glassOf([id])).join(", ")}.`]
      : []),
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
