import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, Problem, unwrap } from "../../api/client";
import { STILLS } from "../../api/here/pixels";
import { camerasQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { octets } from "../../api/upload";
import { Choice } from "../../lib/Choice";
import { FileButton } from "../../lib/FileButton";
import { signed } from "../../lib/format";
import { useHandedOver, useWaiting } from "../../lib/handOver";
import { LIGHT_SOURCES } from "../../lib/lightSources";
import { decimal } from "../../lib/locale";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { skyName } from "../../lib/skies";
import { TextField } from "../../lib/TextField";
import { clockIn, dayIn, instantIn, isoIn } from "../../lib/zone";
import type { DayWork } from "./useDay";

type Work = DayWork;
type Reading = Schemas["StoredLightReadingFields"];
/** EXIF stands at the head of a picture: a raw file is not sent whole. */
const EXIF_BYTES = 1 << 20;

type Way = "typed" | "auto" | "sky" | "meter" | "still";

const WAYS: readonly { value: Way; name: string }[] = [
  { value: "typed", name: LIGHT_SOURCES.meter },
  { value: "auto", name: LIGHT_SOURCES.auto },
  { value: "sky", name: LIGHT_SOURCES.sky },
  { value: "still", name: LIGHT_SOURCES.photo },
  { value: "meter", name: LIGHT_SOURCES.simulated },
];

/** Light read on the spot: taken in any form, kept, and pinned as what the rest of the day follows. */
export function LightPanel({ work, date }: { work: Work; date: string }) {
  const [way, setWay] = useState<Way>("typed");
  const isStillWaiting = useWaiting("still");
  useEffect(() => {
    if (isStillWaiting) setWay("still");
  }, [isStillWaiting]);
  const [time, setTime] = useState("12:00");
  const [glass, setGlass] = useState<number | undefined>(undefined);
  const [text, setText] = useState("");
  const [sky, setSky] = useState<"clear" | "partly" | "overcast">("clear");
  const zone = work.day?.zone ?? "";
  const at = instantIn(date, time, zone);
  const take = useMutation({
    mutationFn: async () => {
      const reading = await readingOf(way, { text, sky, glass: glass ?? 0, at, work });
      return keepReading(work, reading, isoIn(at, zone));
    },
    onSuccess: (reading) => {
      setText("");
      work.setDay({ anchor: anchorOf(reading) });
    },
  });
  const anchor = work.day?.shoot.day?.anchor;
  return (
    <Panel heading="Light read on the spot" note="it corrects the forecast of the rest of the day">
      <Stack gap="3">
        {anchor && (
          <Flex gap="3" align="center" wrap="wrap" data-testid="anchor">
            <Text flex="1" minW="200px">
              <b>
                Corrected by the reading at {clockIn(anchor.at, zone)}: EV {decimal(anchor.ev100, 1)}
              </b>
              {anchor.source === "simulated" && " (simulated)"}
              {work.light && `, ${signed(work.light.offsetStops)} stops against the forecast`}
            </Text>
            <Button size="sm" variant="outline" onClick={() => work.setDay({ anchor: undefined })}>
              Do not use it
            </Button>
          </Flex>
        )}
        {work.day?.request.known?.map((known) => (
          <Text key={known.sky} color="muted" data-testid="learned-light">
            Learned here under a {skyName(known.sky).toLowerCase()} sky: {signed(known.offsetStops, 2)} stops, ±
            {decimal(known.spreadStops, 2)}, from {known.days} days; the forecast has it in it.
          </Text>
        ))}
        <Choice label="Read by" options={WAYS} value={way} onChange={setWay} />
        <Flex gap="3" wrap="wrap" align="flex-end">
          {way === "typed" && (
            <TextField
              label="What it says"
              w="200px"
              value={text}
              onChange={setText}
              helper="f2 1/1250 iso50, EV 14.3, 6400 lux"
            />
          )}
          {way === "auto" && <CameraSays onChange={setText} />}
          {way === "sky" && (
            <SelectField
              label="The sky is"
              w="140px"
              maxW="140px"
              value={sky}
              options={(["clear", "partly", "overcast"] as const).map((v) => ({ value: v, name: skyName(v) }))}
              onChange={(v) => setSky(v as "clear")}
            />
          )}
          {way !== "still" && <TextField label="At" type="time" w="120px" value={time} onChange={setTime} />}
          {(way === "typed" || way === "auto" || way === "still") && (
            <NumberField label="Filter on, stops" w="130px" value={glass} onChange={setGlass} />
          )}
          {way === "still" ? (
            <StillButton work={work} glass={glass ?? 0} />
          ) : (
            <Button loading={take.isPending} disabled={Number.isNaN(at)} onClick={() => take.mutate()}>
              Save reading
            </Button>
          )}
        </Flex>
        {take.error && (
          <Text role="alert" color="breaks">
            {take.error instanceof Problem ? (take.error.faults[0]?.allowed ?? take.error.message) : take.error.message}
          </Text>
        )}
        <Kept work={work} />
      </Stack>
    </Panel>
  );
}

const anchorOf = (r: Reading): Schemas["Anchor"] => ({
  at: r.takenAt,
  ev100: r.ev100,
  source: r.source,
  words: r.words,
});

interface Typed {
  text: string;
  sky: "clear" | "partly" | "overcast";
  glass: number;
  at: number;
  work: Work;
}

type Read = Pick<Reading, "kind" | "source" | "words" | "ev100" | "spreadStops">;

/** What was read, in whatever way, as an exposure value. */
async function readingOf(way: Way, { text, sky, glass, at, work }: Typed): Promise<Read> {
  const place = work.day?.request.place;
  if (way === "typed" || way === "auto") {
    const { ev100, spreadStops } = await unwrap(
      api.POST("/api/calc/reading", { body: { kind: "meter", text: text || " ", glassStops: glass } }),
    );
    const on = glass > 0 ? `, ${glass} stops of filter on` : "";
    return { kind: way === "auto" ? "auto" : "meter", source: "real", words: `${text}${on}`, ev100, spreadStops };
  }
  if (!place) throw new Error("Say where the shoot is first: the sun's height is not known.");
  if (way === "meter") {
    const zone = work.day?.zone ?? "";
    const { ev100, spreadStops, words } = await unwrap(
      api.POST("/api/sim/meter", { body: { at: isoIn(at, zone), place, sky: skyAt(work, at) } }),
    );
    return { kind: "meter", source: "simulated", words, ev100, spreadStops };
  }
  const sun = await unwrap(api.POST("/api/calc/sun", { body: { time: new Date(at).toISOString(), ...place } }));
  const { ev100, spreadStops } = await unwrap(
    api.POST("/api/calc/reading", { body: { kind: "sky", sky, sunAltitudeDeg: sun.geometricDeg } }),
  );
  return { kind: "sky", source: "real", words: `${sky} sky by eye`, ev100, spreadStops };
}

/** What a camera on automatic chose, written as a reading. */
function CameraSays({ onChange }: { onChange: (text: string) => void }) {
  const { data: cameras = [] } = useQuery(camerasQuery);
  const [id, setId] = useState("");
  const [shutter, setShutter] = useState("");
  const [iso, setIso] = useState("");
  const camera = cameras.find((c) => c.id === id) ?? cameras[0];
  const write = (c: typeof camera, s: string, i: string) =>
    onChange(c ? `f${c.tNumber ?? c.aperture} ${s} iso${i || c.isoBase}` : "");
  if (!camera) return null;
  return (
    <>
      <SelectField
        label="Camera"
        w="220px"
        maxW="220px"
        value={camera.id}
        options={cameras.map((c) => ({ value: c.id, name: c.name }))}
        onChange={(next) => {
          setId(next);
          write(
            cameras.find((c) => c.id === next),
            shutter,
            iso,
          );
        }}
      />
      <TextField
        label="Shutter it chose"
        w="120px"
        value={shutter}
        onChange={(v) => {
          setShutter(v);
          write(camera, v, iso);
        }}
      />
      <TextField
        label="ISO"
        w="90px"
        value={iso}
        onChange={(v) => {
          setIso(v);
          write(camera, shutter, v);
        }}
      />
    </>
  );
}

const skyAt = (work: Work, at: number): "clear" | "partly" | "overcast" =>
  work.light?.curve.findLast((p) => Date.parse(p.time) <= at)?.sky ?? "clear";

const keepReading = (work: Work, read: Read, takenAt: string): Promise<Reading> =>
  unwrap(api.POST("/api/light-readings", { body: { shootId: work.day?.shoot.id ?? "", takenAt, ...read } }));

/** Takes light from a still: its EXIF says how it was exposed, its owner what glass was on. */
function StillButton({ work, glass }: { work: Work; glass: number }) {
  const zone = work.day?.zone ?? "";
  const take = useMutation({
    mutationFn: async (file: File) => {
      const still = await unwrap(api.POST("/api/import/still", octets(file.slice(0, EXIF_BYTES))));
      // Without a zone its clock is taken as that of the shoot.
      const [date = "", clock = ""] = (still.clock ?? "").split("T");
      const at = still.takenAt ? Date.parse(still.takenAt) : instantIn(date, clock.slice(0, 5), zone);
      if (Number.isNaN(at)) throw new Error("The still does not say when it was taken.");
      const isPlaced = work.day?.shoot.day?.where !== undefined;
      const reading = await keepReading(
        work,
        {
          kind: "still",
          source: "real",
          words: `${file.name}: ${still.text}`.slice(0, 200),
          ev100: still.ev100 + glass,
          spreadStops: 0.2,
        },
        isoIn(at, zone),
      );
      return { reading, where: isPlaced ? undefined : still.where };
    },
    onSuccess: ({ reading, where }) => work.setDay({ anchor: anchorOf(reading), ...(where && { where }) }),
  });
  useHandedOver("still", take.mutate);
  return (
    <Stack gap="1">
      <FileButton label="A photo" accept={STILLS} loading={take.isPending} onFile={(file) => take.mutate(file)}>
        Choose a JPEG
      </FileButton>
      {take.error && (
        <Text role="alert" color="breaks">
          {take.error.message}
        </Text>
      )}
    </Stack>
  );
}

/** The readings that are kept, each of which can be pinned. */
function Kept({ work }: { work: Work }) {
  const readings = work.day?.readings ?? [];
  const zone = work.day?.zone ?? "";
  const pinned = work.day?.shoot.day?.anchor?.at;
  if (readings.length === 0) return null;
  return (
    <Stack gap="0" as="section" aria-label="Readings">
      {readings.map((r) => (
        <Flex key={r.id} gap="3" align="center" borderTopWidth="1px" borderColor="edge">
          <Text flex="1" py="2">
            {dayIn(r.takenAt, zone)}, {clockIn(r.takenAt, zone)}: EV {decimal(r.ev100, 1)} ±{decimal(r.spreadStops, 1)},{" "}
            {r.words}
            {r.source === "simulated" && !r.words.includes("simulated") && " (simulated)"}
          </Text>
          {pinned && Date.parse(pinned) === Date.parse(r.takenAt) ? (
            <Text color="muted">in use</Text>
          ) : (
            <Button size="sm" variant="ghost" onClick={() => work.setDay({ anchor: anchorOf(r) })}>
              Use it
            </Button>
          )}
        </Flex>
      ))}
    </Stack>
  );
}
