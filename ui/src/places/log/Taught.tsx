import { Button, Flex, Grid, List, Stack, Text } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import type { Schemas } from "../../api/schemas";
import { useTaughtAnew } from "../../api/useTaughtAnew";
import { BeliefRow } from "../../instruments/belief/BeliefRow";
import { ACTIVITIES } from "../../lib/activities";
import { signed } from "../../lib/format";
import { GONE, together } from "../../lib/glass";
import { LogSwitch } from "../../lib/LogSwitch";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { type ForecastSky, skyName } from "../../lib/skies";
import { sayNotSaved, toaster } from "../../shell/toaster";
import { recordWords } from "./recordWords";
import { Suggestions } from "./Suggestions";
import { useStrike } from "./useStrike";

type Learned = Schemas["Learned"];

/** What settles what cannot be told apart. */
const NEEDS: Record<Schemas["LogUnresolved"]["need"], string> = {
  bare: "One reading without a filter settles it.",
  alone: "One reading through one of the two settles it.",
  elsewhere: "A reading elsewhere, or by another meter here, settles it.",
};

const counted = (n: number, what: string) => `${n} ${what}${n === 1 ? "" : "s"}`;

/** What reads light and is no camera. */
const READERS: Record<string, string> = { meter: "Hand meter", eye: "Your eye" };

const READS: Record<string, string> = { auto: "on auto", bias: "by its bias", frame: "by its frames" };

/** What everything of the log has taught: each belief with its ±, what it rests on, and what is doubtful. */
export function Taught({ learned, records }: { learned: Learned; records: readonly Schemas["StoredRecord"][] }) {
  const anew = useTaughtAnew();
  const nameOf = (name: string) => {
    const [kind, ...rest] = name.split(" ");
    if (kind === "filter") return learned.names[rest.join(" ")] ?? GONE;
    if (kind === "instrument") return readerName(rest.join(" "), learned.names);
    const [sky = "", ...place] = rest.reverse();
    return `${place.reverse().join(" ")}, ${skyName(sky as ForecastSky)}`;
  };
  const filters = learned.filters.filter((f) => f.records > 0);
  return (
    <Stack gap="3" data-testid="taught">
      <LogSwitch>Answers are given with what the log teaches ({learned.records} records)</LogSwitch>
      <Grid gap="3" templateColumns={{ base: "1fr", xl: "1fr 1fr" }} alignItems="start">
        <Stack gap="3">
          <Panel heading="Your filters" note="beside what is printed or was measured; the band holds nine times in ten">
            {filters.length === 0 && <Text color="muted">No reading through a filter is recorded yet.</Text>}
            {filters.map((f) => (
              <BeliefRow
                key={f.id}
                name={learned.names[f.id] ?? GONE}
                offset={f.stops - (learned.printed[f.id] ?? f.stops)}
                sd={f.sdStops}
                band={learned.bandSds}
                value={`${decimal(f.stops, 2)} stops`}
                sought={learned.names[f.id] ?? ""}
                note={`${counted(f.records, "reading")}${f.benches ? ", measured by itself" : ""}; counted as ${decimal(learned.printed[f.id] ?? 0, 2)} without them`}
              />
            ))}
          </Panel>
          <Panel heading="Places under a sky" note="how much brighter than the forecast">
            {learned.places.map((p) => (
              <BeliefRow
                key={`${p.place} ${p.sky}`}
                name={`${p.place}, ${skyName(p.sky)}`}
                offset={p.offsetStops}
                sd={p.sdStops}
                band={learned.bandSds}
                value={signed(p.offsetStops, 2)}
                sought={`${p.place} ${p.sky}`}
                note={counted(p.days, "day")}
              />
            ))}
            <Forget places={[...new Set(learned.places.map((p) => p.place))]} onForgotten={anew} />
          </Panel>
        </Stack>
        <Stack gap="3">
          <Suggestions taste={learned.taste} />
          <Doubtful learned={learned} records={records} />
          <Panel heading="Your cameras, meter and eye" note="how much more light they show than there is">
            {learned.instruments.length === 0 && <Text color="muted">No light is recorded yet.</Text>}
            {learned.instruments.map((i) => (
              <BeliefRow
                key={i.id}
                name={readerName(i.id, learned.names)}
                offset={i.offsetStops}
                sd={i.sdStops}
                band={learned.bandSds}
                value={signed(i.offsetStops, 2)}
                sought={readerSought(i.id, learned.names)}
                note={counted(i.records, "reading")}
              />
            ))}
            <NewFirmware learned={learned} onSaved={anew} />
          </Panel>
          <Panel heading="Not told apart yet">
            {learned.unresolved.length === 0 && (
              <Text color="muted">Everything that was recorded can be told apart.</Text>
            )}
            <List.Root ps="5">
              {learned.unresolved.map((u) => (
                <List.Item key={u.a + u.b}>
                  {nameOf(u.a)} and {nameOf(u.b)}: together ±{decimal(u.togetherSdStops, 2)}. {NEEDS[u.need]}
                </List.Item>
              ))}
            </List.Root>
          </Panel>
          <Right learned={learned} />
          <Honest learned={learned} />
        </Stack>
      </Grid>
    </Stack>
  );
}

function readerName(id: string, names: Record<string, string>): string {
  if (READERS[id]) return READERS[id];
  const [kind = "", ...rest] = id.split(" ").reverse();
  return `${names[rest.reverse().join(" ")] ?? "a camera"} ${READS[kind] ?? kind}`;
}

/** The words of its records, as they are written there. */
const readerSought = (id: string, names: Record<string, string>): string =>
  id === "meter" ? "by meter" : id === "eye" ? "by eye" : readerName(id, names);

/** A camera that was updated or mended is another one from now on. */
function NewFirmware({ learned, onSaved }: { learned: Learned; onSaved: () => void }) {
  const rigs = [...new Set(learned.instruments.filter(({ id }) => !READERS[id]).map((i) => i.id.replace(/ \w+$/, "")))];
  const [rigId, setRigId] = useState("");
  const save = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/records", {
          body: {
            kind: "reset",
            at: new Date().toISOString(),
            from: "hand",
            source: "real",
            name: learned.names[rigId] ?? "a camera",
            rigId,
            reset: { words: "new firmware or a repair" },
          },
        }),
      ),
    onSuccess: () => {
      toaster.create({ title: "It is learned anew from now on" });
      setRigId("");
      onSaved();
    },
    onError: sayNotSaved,
  });
  if (rigs.length === 0) return null;
  return (
    <Flex gap="2" align="flex-end" wrap="wrap" mt="2">
      <SelectField
        label="New firmware, or a repair, of"
        maxW="260px"
        value={rigId}
        options={[{ value: "", name: "choose" }, ...rigs.map((id) => ({ value: id, name: learned.names[id] ?? id }))]}
        onChange={setRigId}
      />
      <Button variant="outline" disabled={rigId === ""} loading={save.isPending} onClick={() => save.mutate()}>
        Learn it anew
      </Button>
    </Flex>
  );
}

/** Records and days that do not go with the rest: they are not followed, and can be struck. */
function Doubtful({ learned, records }: { learned: Learned; records: readonly Schemas["StoredRecord"][] }) {
  const strike = useStrike();
  return (
    <Panel heading="Doubtful" note="not followed; correct or strike what is wrong">
      {learned.doubtful.length === 0 && <Text color="muted">Nothing stands out.</Text>}
      {learned.doubtful.map((d) => {
        const record = records.find((r) => r.id === d.id);
        return (
          <Flex key={`${d.kind} ${d.id ?? ""} ${d.date ?? ""} ${d.place ?? ""}`} gap="3" align="center" wrap="wrap">
            <Text flex="1 1 240px">
              {d.kind === "day"
                ? `${d.date}, ${d.place}, ${d.sky ? skyName(d.sky) : ""}: ${signed(d.offsetStops ?? 0)} stops beside other days`
                : `${record ? recordWords(record, learned.names) : d.id}${d.leftStops === undefined ? "" : `: off by ${signed(d.leftStops)} stops`}`}
            </Text>
            {record && (
              <Button variant="outline" onClick={() => strike.mutate({ record })}>
                Strike
              </Button>
            )}
          </Flex>
        );
      })}
    </Panel>
  );
}

const TRENDS: Record<Schemas["LogTrend"]["what"], (mean: number) => string> = {
  firstRight: (mean) => `The first filter was right ${decimal(100 * mean, 0)} % of the time`,
  swaps: (mean) => `${decimal(mean, 1)} swaps a take`,
  minutesLost: (mean) => `${decimal(mean, 1)} minutes lost a take`,
};

/** Which filters were right where, how it goes, and what the stabilisers hold. */
function Right({ learned }: { learned: Learned }) {
  const { stabilisers, names } = learned;
  return (
    <Panel heading="What was right">
      <List.Root ps="5">
        {learned.right.map((r) => {
          const [best] = r.glass;
          if (!best) return null;
          const glass = together(best.glass.map((id) => names[id] ?? GONE));
          return (
            <List.Item key={r.place + r.sky + r.look}>
              {glass} was right at {r.place}, {r.sky === "" ? "" : skyName(r.sky)}, {r.look}: {best.good} of {best.used}
              {outBy(best.glass, learned)}
            </List.Item>
          );
        })}
        {learned.trend.map((t) => (
          <List.Item key={t.what}>
            {TRENDS[t.what](t.mean)} over {t.shoots} shoots, {t.verdict === "cannot tell" ? "no trend" : t.verdict}
          </List.Item>
        ))}
        {stabilisers.map((s) => (
          <List.Item key={s.id}>
            {names[s.rigId]}, {ACTIVITIES[s.activity as keyof typeof ACTIVITIES] ?? s.activity}: stabiliser limit{" "}
            {s.floorS == null
              ? "none"
              : `${shutterText(s.floorS)} (${shutterText(s.highS ?? 0)} to ${shutterText(s.lowS ?? 0)}), ${s.trials} takes`}
          </List.Item>
        ))}
      </List.Root>
    </Panel>
  );
}

/** By how much filters came out off what is printed on them, where that shows. */
function outBy(ids: readonly string[], { filters, printed }: Learned): string {
  const off = ids.reduce((sum, id) => {
    const found = filters.find((f) => f.id === id && f.records > 0);
    return sum + (found ? found.stops - (printed[id] ?? found.stops) : 0);
  }, 0);
  if (Math.abs(off) < 0.1) return "";
  return `; it came out ${decimal(Math.abs(off), 1)} stops ${off > 0 ? "darker" : "lighter"} than it is counted without the log`;
}

const FORETOLD: Record<Schemas["LogCalibration"]["kind"], string> = {
  light: "lights",
  seen: "readings",
  floor: "stabiliser limits",
};

/** Whether the ± that were stated are true. */
function Honest({ learned }: { learned: Learned }) {
  return (
    <Panel heading="Are the ± true" note="each stated band should hold nine times in ten">
      {learned.calibration.length === 0 && <Text color="muted">Nothing that was foretold has come yet.</Text>}
      {learned.calibration.map((c) => (
        <Text key={c.kind}>
          Of {c.of} foretold {FORETOLD[c.kind]} {c.inside} held
          {c.isTrue
            ? ": as promised"
            : `: every ± is ${c.scale > 1 ? "widened" : "narrowed"} to ${decimal(c.scale, 2)} of it`}
          .
        </Text>
      ))}
    </Panel>
  );
}

/** A place can be forgotten for good. */
function Forget({ places, onForgotten }: { places: readonly string[]; onForgotten: () => void }) {
  const forget = useMutation({
    mutationFn: (place: string) => unwrap(api.POST("/api/learned/forget", { body: { place } })),
    onSuccess: (_, place) => {
      toaster.create({ title: `${place} is forgotten` });
      onForgotten();
    },
    onError: (error) => toaster.create({ title: "Not forgotten", description: error.message }),
  });
  if (places.length === 0) return <Text color="muted">No light of a place is recorded yet.</Text>;
  return (
    <Flex gap="2" wrap="wrap" mt="2">
      {places.map((place) => (
        <Button
          key={place}
          variant="outline"
          size="sm"
          onClick={() => {
            if (window.confirm(`Remove for good everything that was recorded at ${place}?`)) forget.mutate(place);
          }}
        >
          Forget {place}
        </Button>
      ))}
    </Flex>
  );
}
