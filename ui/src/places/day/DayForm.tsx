import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { presetsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { octets } from "../../api/upload";
import { DateField } from "../../lib/DateField";
import { FileButton } from "../../lib/FileButton";
import { HereButton } from "../../lib/HereButton";
import { useHandedOver } from "../../lib/handOver";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { TextField } from "../../lib/TextField";
import { amountOf } from "../../lib/units";
import { clockIn, dateIn } from "../../lib/zone";
import { toaster } from "../../shell/toaster";
import type { DayWork } from "./useDay";

/** Where and when the shoot is, typed or taken from a track. */
export function DayForm({ work }: { work: DayWork }) {
  const { data: presets } = useQuery(presetsQuery);
  const shoot = work.day?.shoot;
  const day = shoot?.day ?? {};
  const [lat, setLat] = useState(day.where?.latDeg);
  const [lon, setLon] = useState(day.where?.lonDeg);
  const [first, setFirst] = useState(day.firstDay ?? "");
  const [last, setLast] = useState(day.lastDay ?? "");
  const [zone, setZone] = useState(day.zone ?? "");
  const [fault, setFault] = useState("");
  const store = () => {
    if ((lat === undefined) !== (lon === undefined)) {
      setFault("Latitude and longitude go together.");
      return;
    }
    setFault("");
    work.setDay({
      where: lat === undefined || lon === undefined ? undefined : { latDeg: lat, lonDeg: lon },
      firstDay: first || undefined,
      lastDay: last || first || undefined,
      zone: zone || undefined,
    });
  };
  return (
    <Panel heading="Where and when" note="the time zone is found from the place, without a network">
      <Stack gap="3">
        <Flex gap="3" wrap="wrap">
          <NumberField label="Latitude, ° north" w="140px" value={lat} onChange={setLat} />
          <NumberField label="Longitude, ° east" w="140px" value={lon} onChange={setLon} />
          <DateField label="First day" w="180px" value={first} onChange={setFirst} />
          <DateField label="Last day" w="180px" value={last} onChange={setLast} />
          <TextField label="Time zone, if another" w="190px" value={zone} onChange={setZone} helper="Etc/GMT+1" />
          <SelectField
            label="Surfaces of the place"
            w="200px"
            maxW="200px"
            value={String(day.surfaceStops ?? 0)}
            options={[...(presets?.surfaces ?? []).map((s) => ({ value: String(s.stops), name: s.name }))]}
            onChange={(v) => work.setDay({ surfaceStops: Number(v) })}
          />
        </Flex>
        {fault && (
          <Text color="breaks" role="alert">
            {fault}
          </Text>
        )}
        <Flex gap="2" wrap="wrap">
          <Button variant="outline" onClick={store}>
            Save place and days
          </Button>
          <HereButton
            onHere={(latDeg, lonDeg) => {
              setLat(round(latDeg));
              setLon(round(lonDeg));
            }}
          />
          <TrackButton
            work={work}
            onTrack={(track) => {
              setLat(round(track.middle.latDeg));
              setLon(round(track.middle.lonDeg));
              if (track.from) setFirst(dateIn(track.from, work.day?.zone ?? ""));
              if (track.to) setLast(dateIn(track.to, work.day?.zone ?? ""));
            }}
          />
          <SkyButton work={work} />
        </Flex>
      </Stack>
    </Panel>
  );
}

const round = (deg: number): number => Number(deg.toFixed(4));

type Track = Schemas["Track"];

/** Reads a GPX track: place and days into the form, its speed for those who want it. */
function TrackButton({ work, onTrack }: { work: DayWork; onTrack: (track: Track) => void }) {
  const [track, setTrack] = useState<Track | null>(null);
  const read = useMutation({
    mutationFn: (file: File) => unwrap(api.POST("/api/import/track", octets(file))),
    onSuccess: (found) => {
      setTrack(found);
      onTrack(found);
    },
  });
  useHandedOver("track", read.mutate);
  return (
    <Stack gap="1">
      <FileButton
        variant="outline"
        label="A track"
        accept=".gpx,application/gpx+xml"
        loading={read.isPending}
        onFile={(file) => read.mutate(file)}
      >
        From a GPX track
      </FileButton>
      {read.error && (
        <Text role="alert" color="breaks">
          {read.error.message}
        </Text>
      )}
      {track && !read.error && (
        <>
          <Text data-testid="track">{trackWords(track, work.day?.zone ?? "")}</Text>
          {track.speedMps && <SpeedInto work={work} speed={track.speedMps.p90} />}
        </>
      )}
    </Stack>
  );
}

/** Puts the speed of the track into the motion of a shot. */
function SpeedInto({ work, speed }: { work: DayWork; speed: number }) {
  const shots = work.day?.request.shots ?? [];
  if (shots.length === 0) return null;
  return (
    <SelectField
      label={`Use ${amountOf("speed", speed)} as what passes in`}
      maxW="320px"
      value=""
      options={[{ value: "", name: "no shot" }, ...shots.map((s) => ({ value: s.id, name: s.name }))]}
      onChange={(id) => id && work.setSpeed(id, Number(speed.toFixed(2)))}
    />
  );
}

function trackWords(track: Track, zone: string): string {
  const when =
    track.from && track.to ? `, ${clockIn(track.from, zone)} to ${clockIn(track.to, zone)}` : ", without times";
  const { speedMps: v } = track;
  const speed = v
    ? `; half of the time under ${amountOf("speed", v.p50)}, nine tenths under ${amountOf("speed", v.p90)}`
    : "";
  return `${track.points} points${when}${speed}. Save to use its place.`;
}

/** Asks the simulated sky service for the days of the shoot. */
function SkyButton({ work }: { work: DayWork }) {
  const request = work.day?.request;
  const ask = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/sim/sky", {
          body: { from: request?.from ?? "", to: request?.to ?? "", place: request?.place as Schemas["PlaceFields"] },
        }),
      ),
    onSuccess: ({ sky, turns }) => {
      work.setDay({ sky, turns });
      toaster.create({ title: "Simulated sky taken", description: "Made up by the application, not a forecast." });
    },
    onError: (error) => toaster.create({ title: "No sky", description: error.message }),
  });
  if (!request?.place) return null;
  return (
    <Button variant="ghost" loading={ask.isPending} onClick={() => ask.mutate()}>
      Ask the simulated sky service
    </Button>
  );
}
