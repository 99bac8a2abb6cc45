import { Button, Flex, Progress, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { camerasQuery, filtersQuery } from "../../../api/queries";
import type { Schemas } from "../../../api/schemas";
import { FLARE_GRADES } from "../../../lib/flare";
import { signed } from "../../../lib/format";
import { GONE } from "../../../lib/glass";
import { decimal } from "../../../lib/locale";
import { withError } from "../../../lib/measured";
import { Panel } from "../../../lib/Panel";
import { Table } from "../../../lib/Table";
import cell from "../../../lib/Table.module.css";
import { TextField } from "../../../lib/TextField";
import { Sets } from "../../kit/Sets";
import { type Kept, useKeepMeasured } from "../useKeepMeasured";
import { type FilterResult, measureFilter } from "./measurements";
import type { Comparison, Step, Taken } from "./steps";

interface ResultsProps {
  comparison: Comparison;
  steps: readonly Step[];
  taken: ReadonlyMap<string, Taken>;
  onBack: (key: string) => void;
  onEnd: () => void;
}

/** What came out of a comparison, filter by filter; saved in one go, it fills the table of sets. */
export function Results({ comparison, steps, taken, onBack, onEnd }: ResultsProps) {
  const { data: filters = [] } = useQuery(filtersQuery);
  const { data: cameras = [] } = useQuery(camerasQuery);
  const { keep } = useKeepMeasured();
  const { results, fault } = useResults(comparison, taken);
  const isDone = results.length === comparison.filterIds.length;
  const last = steps.at(-1);
  const [set, setSet] = useState("");
  const unnamed = filters.filter((f) => comparison.filterIds.includes(f.id) && !f.set).map((f) => f.id);
  const all = results.flatMap((r) =>
    keptOf(r, comparison.rigId).map((kept) =>
      kept.fields && set.trim() && unnamed.includes(r.filterId)
        ? { ...kept, fields: { ...kept.fields, set: set.trim() } }
        : kept,
    ),
  );
  return (
    <>
      <Panel heading="What came out" note={isDone ? `${results.length} filters` : "measuring on this device"}>
        <Stack gap="4">
          {!isDone && !fault && (
            <Progress.Root value={results.length} max={comparison.filterIds.length} aria-label="Filters measured">
              <Progress.Track>
                <Progress.Range bg="accent" />
              </Progress.Track>
            </Progress.Root>
          )}
          {fault && (
            <Text role="alert" color="breaks">
              {fault}
            </Text>
          )}
          <Table
            label="Filters as measured"
            testId="session-results"
            heads={["Filter", "Marked", "Measured", "Colour shift", "Vignetting", "Sharpness lost", "Flare"]}
          >
            {results.map((r) => (
              <Row key={r.filterId} result={r} filter={filters.find((f) => f.id === r.filterId)} />
            ))}
          </Table>
          {unnamed.length > 0 && !keep.isSuccess && (
            <TextField
              label="Name of their set"
              helper="for those that have none: sets are compared as a whole"
              w="260px"
              value={set}
              onChange={setSet}
            />
          )}
          <Flex gap="3" wrap="wrap">
            <Button
              minH="44px"
              disabled={!isDone || all.length === 0 || keep.isSuccess}
              loading={keep.isPending}
              onClick={() => keep.mutate(all)}
            >
              {keep.isSuccess ? "Saved" : "Save with the filters"}
            </Button>
            {last && !keep.isSuccess && (
              <Button variant="outline" minH="44px" onClick={() => onBack(last.key)}>
                Take the last one again
              </Button>
            )}
            <Button variant="ghost" minH="44px" onClick={onEnd}>
              {keep.isSuccess ? "Done" : "End without saving"}
            </Button>
          </Flex>
        </Stack>
      </Panel>
      {keep.isSuccess && (
        <Panel heading="Sets, as they are known now">
          <Sets cameras={cameras} on={comparison.rigId} />
        </Panel>
      )}
    </>
  );
}

/** Measures filter by filter, so that results stand there as they come. */
function useResults(comparison: Comparison, taken: ReadonlyMap<string, Taken>) {
  const [results, setResults] = useState<readonly FilterResult[]>([]);
  const [fault, setFault] = useState<string>();
  useEffect(() => {
    const running = new AbortController();
    const run = async () => {
      setResults([]);
      for (const id of comparison.filterIds) {
        const result = await measureFilter(comparison, taken, id, running.signal);
        if (running.signal.aborted) return;
        setResults((now) => [...now, result]);
      }
    };
    run().catch((cause) => running.signal.aborted || setFault(cause instanceof Error ? cause.message : String(cause)));
    return () => running.abort();
  }, [comparison, taken]);
  return { results, fault };
}

function Row({ result, filter }: { result: FilterResult; filter: Schemas["ShownFilter"] | undefined }) {
  const { filter: strength, corners, sharpness, flare } = result;
  const why = (answer: { refused: readonly { text: string }[] } | undefined) =>
    answer === undefined ? "not shot" : answer.refused[0]?.text;
  const printed = filter?.reads.stops;
  return (
    <tr>
      <td className={cell.strong}>{filter?.title ?? GONE}</td>
      <td>{printed === undefined ? "—" : decimal(printed, 2)}</td>
      <td className={cell.strong}>
        {strength?.stops != null ? withError(strength.stops, strength.stdErrorStops) : why(strength)}
      </td>
      <td>{strength?.castStops != null ? `${signed(strength.castStops)} ${strength.cast.join(", ")}` : "—"}</td>
      <td>
        {corners?.cornerStops != null
          ? `${decimal(Math.max(0, corners.cornerStops), 1)} stops${corners.crooked ? ", askew" : ""}`
          : why(corners)}
      </td>
      <td>{sharpness?.lossPercent != null ? `${decimal(Math.max(0, sharpness.lossPercent), 0)} %` : why(sharpness)}</td>
      <td>{flare?.grade != null ? FLARE_GRADES[flare.grade] : why(flare)}</td>
    </tr>
  );
}

/** What is kept of a result: strength and colour with the filter, its image with it on this rig. */
function keptOf({ filterId, from, filter, corners, sharpness, flare }: FilterResult, rigId: string): Kept[] {
  const image = {
    // A ring that sat askew says nothing of the filter.
    ...(corners?.cornerStops != null &&
      !corners.crooked && { cornerStops: Number(Math.min(20, Math.max(0, corners.cornerStops)).toFixed(2)) }),
    ...(sharpness?.lossPercent != null && {
      sharpnessLost: Number(Math.min(100, Math.max(0, sharpness.lossPercent)).toFixed(1)),
    }),
    ...(flare?.grade != null && { flare: flare.grade }),
  };
  const kept: Kept[] = [];
  if (filter?.stops != null)
    kept.push({
      filterId,
      fields: {
        measuredStops: Math.max(-1, Number(filter.stops.toFixed(3))),
        ...(filter.stdErrorStops != null && { stdErrStops: Number(filter.stdErrorStops.toFixed(3)) }),
        ...(filter.castStops != null && { castStops: Number(filter.castStops.toFixed(3)) }),
      },
      note: `${withError(filter.stops, filter.stdErrorStops)}, a case compared: ${from}`,
    });
  if (Object.keys(image).length > 0) kept.push({ filterId, image, rigId, note: `a case compared: ${from}` });
  return kept;
}
