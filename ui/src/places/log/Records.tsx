import { Button, Flex, List, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/schemas";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { saveBlob } from "../../lib/saveBlob";
import { skyName } from "../../lib/skies";
import { TextField } from "../../lib/TextField";
import { clockIn, dateIn, dayIn } from "../../lib/zone";
import { Calendar } from "./Calendar";
import { recordWords } from "./recordWords";
import { useCorrect, useDoubt, useStrike } from "./useStrike";

type StoredRecord = Schemas["StoredRecord"];

const KINDS = [
  { value: "", name: "everything" },
  { value: "seen", name: "lights seen" },
  { value: "take", name: "takes" },
  { value: "step", name: "shutter tests" },
  { value: "done", name: "steps, swaps, notes" },
  { value: "reset", name: "new firmware, repairs" },
  { value: "struck", name: "struck or doubtful" },
];

/** So many are shown before more are asked for. */
const SHOWN = 60;

interface RecordsProps {
  records: readonly StoredRecord[];
  learned: Schemas["Learned"];
}

/** What happened, day by day, the latest first; each can be struck. */
export function Records({ records, learned }: RecordsProps) {
  const [kind, setKind] = useState("");
  const [params] = useSearchParams();
  const [sought, setSought] = useState(params.get("q") ?? "");
  const [date, setDate] = useState("");
  const [most, setMost] = useState(SHOWN);
  const strike = useStrike();
  const doubt = useDoubt();
  // Pressed again before the first is stored, it would be of the version before.
  const isBusy = (id: string) =>
    (strike.isPending && strike.variables.record.id === id) || (doubt.isPending && doubt.variables.id === id);
  const doubtful = new Set(learned.doubtful.map((d) => d.id));
  const lines = [...records]
    .sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
    .map((record) => ({ record, words: recordWords(record, learned.names), isDoubtful: doubtful.has(record.id) }))
    .filter(({ record, isDoubtful }) =>
      kind === "struck" ? record.struck || record.doubted || isDoubtful : kind === "" || record.kind === kind,
    )
    .filter(({ record }) => date === "" || dateIn(record.at, "") === date)
    .filter(({ record, words }) => {
      const all = `${record.name} ${record.there?.name ?? ""} ${record.there?.sky ?? ""} ${words} ${record.words ?? ""} ${dateIn(record.at, "")}`;
      return sought
        .toLowerCase()
        .split(/\s+/)
        .every((word) => all.toLowerCase().includes(word));
    });
  const counts = new Map<string, number>();
  for (const { at } of records) counts.set(dateIn(at, ""), (counts.get(dateIn(at, "")) ?? 0) + 1);
  const days = new Map<string, typeof lines>();
  for (const line of lines.slice(0, most)) {
    const { at, there, name } = line.record;
    const day = `${dayIn(at, "")}, ${there?.name ?? name}`;
    days.set(day, [...(days.get(day) ?? []), line]);
  }
  return (
    <Panel heading="Records" note={`${lines.length} of ${records.length}; ${learned.struck} struck`}>
      <Stack gap="3">
        <Flex gap="3" wrap="wrap" align="flex-end">
          <TextField
            label="Search place, sky, filter, camera, date"
            w="280px"
            type="search"
            value={sought}
            onChange={setSought}
          />
          <SelectField label="Kind" w="180px" value={kind} options={KINDS} onChange={setKind} />
          <Button variant="outline" onClick={() => saveBlob(asCSV(lines), "pinhole-records.csv")}>
            CSV
          </Button>
          <Button
            variant="outline"
            onClick={() =>
              saveBlob(
                new Blob([
                  JSON.stringify(
                    lines.map((l) => l.record),
                    null,
                    1,
                  ),
                ]),
                "pinhole-records.json",
              )
            }
          >
            JSON
          </Button>
        </Flex>
        <Calendar days={counts} chosen={date} onChoose={setDate} />
        {lines.length === 0 && <Text color="muted">Nothing is recorded like that.</Text>}
        {[...days].map(([day, of]) => (
          <section key={day} aria-label={day}>
            <Text fontWeight="bold" mb="1">
              {day}
              {of[0]?.record.there && (
                <Text as="span" fontWeight="normal" color="muted">
                  {`, ${skyName(of[0].record.there.sky)}`}
                </Text>
              )}
            </Text>
            <List.Root variant="plain" gap="0">
              {of.map(({ record, words, isDoubtful }) => (
                <List.Item
                  key={record.id}
                  display="flex"
                  flexWrap="wrap"
                  columnGap="3"
                  alignItems="center"
                  data-testid="record"
                >
                  <Text color="muted" whiteSpace="nowrap">
                    {clockIn(record.at, "")}
                  </Text>
                  <Text flex="1 1 230px" textDecoration={record.struck ? "line-through" : undefined}>
                    {words}
                    {isDoubtful && (
                      <Text as="span" color="tight">
                        {" "}
                        doubtful
                      </Text>
                    )}
                    {record.source === "simulated" && (
                      <Text as="span" color="muted">
                        {" "}
                        simulated
                      </Text>
                    )}
                    {record.doubted && (
                      <Text as="span" color="muted" display="inline-block" ps="2">
                        doubted by {record.doubted.by}, {dayIn(record.doubted.at, "")}
                      </Text>
                    )}
                    {record.struck && (
                      <Text as="span" color="muted" display="inline-block" ps="2">
                        struck by {record.struck.by}, {dayIn(record.struck.at, "")}
                      </Text>
                    )}
                  </Text>
                  {record.seen && !record.struck && <Correct record={record} />}
                  {record.seen && !record.struck && (
                    <Button
                      variant="ghost"
                      size="sm"
                      minH="44px"
                      disabled={isBusy(record.id)}
                      onClick={() => doubt.mutate(record)}
                    >
                      {record.doubted ? "Trust" : "Doubt"}
                    </Button>
                  )}
                  <Button
                    variant="ghost"
                    size="sm"
                    minH="44px"
                    disabled={isBusy(record.id)}
                    onClick={() => strike.mutate({ record })}
                  >
                    {record.struck ? "Count again" : "Strike"}
                  </Button>
                </List.Item>
              ))}
            </List.Root>
          </section>
        ))}
        {lines.length > most && (
          <Button variant="outline" alignSelf="flex-start" onClick={() => setMost(most + SHOWN)}>
            Earlier ones
          </Button>
        )}
      </Stack>
    </Panel>
  );
}

/** What was seen can be set right, where it was mistyped. */
function Correct({ record }: { record: StoredRecord }) {
  const [ev100, setEV] = useState<number>();
  const correct = useCorrect();
  if (ev100 === undefined)
    return (
      <Button variant="ghost" size="sm" minH="44px" onClick={() => setEV(record.seen?.ev100)}>
        Correct
      </Button>
    );
  return (
    <Flex gap="1" align="flex-end">
      <NumberField label="EV seen" w="90px" value={ev100} onChange={(v) => v !== undefined && setEV(v)} />
      <Button
        size="sm"
        minH="44px"
        loading={correct.isPending}
        onClick={() => correct.mutate({ record, ev100 }, { onSuccess: () => setEV(undefined) })}
      >
        Save
      </Button>
    </Flex>
  );
}

function asCSV(lines: readonly { record: StoredRecord; words: string }[]): Blob {
  const cell = (v: unknown) => `"${String(v ?? "").replaceAll('"', '""')}"`;
  const rows = lines.map(({ record: r, words }) =>
    [r.at, r.kind, r.there?.name ?? r.name, r.there?.sky, r.there?.ev100, r.seen?.ev100, words, r.source, r.struck?.at]
      .map(cell)
      .join(","),
  );
  return new Blob([["at,kind,place,sky,forecast EV,seen EV,what,source,struck", ...rows].join("\r\n")], {
    type: "text/csv",
  });
}
