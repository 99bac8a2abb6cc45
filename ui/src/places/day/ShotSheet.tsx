import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { polariserDayQuery, presetsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Compass } from "../../instruments/compass/Compass";
import { Choice } from "../../lib/Choice";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { clockIn, isoIn } from "../../lib/zone";
import type { DayWork } from "./useDay";

interface ShotSheetProps {
  work: DayWork;
  shot: Schemas["OutingShot"];
}

const PLANES = {
  "": "as it was read",
  vertical: "upright",
  top: "seen from above",
  shade: "upright, in open shade",
} as const;

/** What daylight falls on a shot, and what a polariser would do to it. */
export function ShotSheet({ work, shot }: ShotSheetProps) {
  const { data: presets } = useQuery(presetsQuery);
  const stored = work.shots?.find((s) => s.id === shot.id);
  const day = stored?.day ?? {};
  const place = work.day?.request.place;
  const zone = work.day?.zone ?? "";
  const set = (change: Partial<Schemas["StoredShotDay"]>) => work.changeShot(shot.id, change);
  return (
    <Panel heading="Shot in daylight" note={shot.name}>
      <Stack gap="3">
        <Flex gap="3" wrap="wrap">
          <SelectField
            label="Light on the subject"
            w="190px"
            maxW="190px"
            value={day.plane ?? ""}
            options={Object.entries(PLANES).map(([value, name]) => ({ value, name }))}
            onChange={(plane) => set({ plane: plane === "" ? undefined : (plane as "vertical") })}
          />
          <NumberField
            label="Minutes"
            w="90px"
            value={shot.minutes}
            onChange={(minutes) => minutes && set({ minutes })}
          />
          <NumberField
            label="Camera looks to, °"
            w="150px"
            value={day.headingDeg}
            onChange={(headingDeg) => set({ headingDeg })}
          />
          <NumberField label="Looks up, °" w="110px" value={day.tiltDeg} onChange={(tiltDeg) => set({ tiltDeg })} />
          <SelectField
            label="Surfaces"
            w="180px"
            maxW="180px"
            value={String(day.surfaceStops ?? "")}
            options={[
              { value: "", name: "as the place" },
              ...(presets?.surfaces ?? []).map((s) => ({ value: String(s.stops), name: s.name })),
            ]}
            onChange={(v) => set({ surfaceStops: v === "" ? undefined : Number(v) })}
          />
          <Choice
            label="Water in it"
            options={[
              { value: "no", name: "No" },
              { value: "yes", name: "Yes" },
            ]}
            value={day.water ? "yes" : "no"}
            onChange={(v) => set({ water: v === "yes" || undefined })}
          />
        </Flex>
        {day.headingDeg !== undefined && place && presets && (
          <Polariser
            shot={shot}
            day={day}
            heading={day.headingDeg}
            hfov={hfovOf(stored) ?? presets.hfovDeg}
            place={place}
            zone={zone}
          />
        )}
      </Stack>
    </Panel>
  );
}

const hfovOf = (shot: Schemas["StoredShot"] | undefined): number | undefined =>
  shot?.answer.request.profile?.lens?.hfovDeg;

interface PolariserProps {
  shot: Schemas["OutingShot"];
  day: Schemas["StoredShotDay"];
  heading: number;
  hfov: number;
  place: Schemas["PlaceFields"];
  zone: string;
}

/** The effect midway through the shot, drawn as a compass, and the best hour and headings. */
function Polariser({ shot, day, heading, hfov, place, zone }: PolariserProps) {
  const middle = Date.parse(shot.from) + (shot.minutes * 60_000) / 2;
  const { data } = useQuery(
    polariserDayQuery({
      at: isoIn(middle, zone),
      ...place,
      cameraAltitudeDeg: day.tiltDeg ?? 0,
      cameraAzimuthDeg: heading,
      hfovDeg: hfov,
      ...(day.water && { water: true }),
    }),
  );
  if (!data) return null;
  const { now, sunAzimuthDeg, bestHeadingsDeg, bestAt, bestCentre } = data;
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  return (
    <Flex gap="4" wrap="wrap" align="center">
      <Compass
        sunDeg={sunAzimuthDeg}
        cameraDeg={heading}
        hfovDeg={hfov}
        words={`Sun at ${Math.round(sunAzimuthDeg)}°, camera to ${Math.round(heading)}°`}
      />
      <Box flex="1" minW="220px" data-testid="polariser">
        <Text>
          A polariser would darken the sky by {percent(now.centre)} at the centre, {percent(now.left)} at the left and{" "}
          {percent(now.right)} at the right edge.
          {now.glareLeft !== undefined && ` It would leave ${percent(now.glareLeft)} of the glare on the water.`}
        </Text>
        <Text>
          {bestHeadingsDeg.length > 0 &&
            `Strongest toward ${bestHeadingsDeg.map((d) => `${Math.round(d)}°`).join(" or ")}.`}
          {bestAt && ` For this heading it does most at ${clockIn(bestAt, zone)}, ${percent(bestCentre)}.`}
        </Text>
        {now.notes.map((n) => (
          <Text key={n} color="muted" fontSize="sm">
            {n}
          </Text>
        ))}
      </Box>
    </Flex>
  );
}
