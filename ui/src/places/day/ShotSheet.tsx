import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { polariserQuery } from "../../api/queries";
import { Compass } from "../../instruments/compass/Compass";
import { Choice } from "../../lib/Choice";
import { NumberField } from "../../lib/NumberField";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import type { useDay } from "./useDay";

interface ShotSheetProps {
  work: ReturnType<typeof useDay>;
  shot: Schemas["OutingShot"];
  answer: Schemas["OutingAnswer"] | undefined;
}

const PLANES = {
  "": "as it was read",
  vertical: "upright",
  top: "seen from above",
  shade: "upright, in open shade",
} as const;

/** What daylight falls on a shot, and what a polariser would do to it. */
export function ShotSheet({ work, shot, answer }: ShotSheetProps) {
  const stored = work.shots?.find((s) => s.id === shot.id);
  const day = stored?.day ?? {};
  const set = (change: Partial<Schemas["StoredShotDay"]>) => work.changeShot(shot.id, change);
  return (
    <Panel heading="Shot in daylight" note={shot.name}>
      <Stack gap="3">
        <Flex gap="3" wrap="wrap">
          <SelectField
            label="Its subject is"
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
              { value: "1", name: "snow, salt, white sand" },
              { value: "0.5", name: "pale rock, concrete" },
              { value: "0", name: "mixed" },
              { value: "-0.5", name: "dark leaf, wet tar" },
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
        {day.headingDeg !== undefined && answer && (
          <Polariser shot={shot} day={day} heading={day.headingDeg} hfov={hfovOf(stored)} answer={answer} />
        )}
      </Stack>
    </Panel>
  );
}

const hfovOf = (shot: Schemas["StoredShot"] | undefined): number => shot?.answer.request.profile?.lens?.hfovDeg ?? 70;

interface PolariserProps {
  shot: Schemas["OutingShot"];
  day: Schemas["StoredShotDay"];
  heading: number;
  hfov: number;
  answer: Schemas["OutingAnswer"];
}

/** The effect midway through the shot, drawn as a compass. */
function Polariser({ shot, day, heading, hfov, answer }: PolariserProps) {
  const middle = Date.parse(shot.from) + (shot.minutes * 60_000) / 2;
  const sun = answer.curve.reduce<Schemas["CurvePoint"] | undefined>(
    (best, p) => (!best || Math.abs(Date.parse(p.time) - middle) < Math.abs(Date.parse(best.time) - middle) ? p : best),
    undefined,
  );
  const tilt = day.tiltDeg ?? 0;
  const { data } = useQuery(
    polariserQuery(
      sun
        ? {
            sunAltitudeDeg: sun.altitudeDeg,
            sunAzimuthDeg: sun.azimuthDeg,
            cameraAltitudeDeg: tilt,
            cameraAzimuthDeg: heading,
            hfovDeg: hfov,
            ...(day.water && { water: { depressionDeg: Math.max(0, -tilt) } }),
          }
        : null,
    ),
  );
  if (!sun || !data) return null;
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  // The sky darkens most a quarter turn from the sun.
  const best = [sun.azimuthDeg + 90, sun.azimuthDeg - 90].map((d) => Math.round((d + 360) % 360)).join("° or ");
  const words = `Sun at ${Math.round(sun.azimuthDeg)}°, camera to ${Math.round(heading)}°`;
  return (
    <Flex gap="4" wrap="wrap" align="center">
      <Compass sunDeg={sun.azimuthDeg} cameraDeg={heading} hfovDeg={hfov} words={words} />
      <Box flex="1" minW="220px" data-testid="polariser">
        <Text>
          A polariser would darken the sky by {percent(data.centre)} at the centre, {percent(data.left)} at the left and{" "}
          {percent(data.right)} at the right edge.
          {data.glareLeft !== undefined && ` It would leave ${percent(data.glareLeft)} of the glare on the water.`}
        </Text>
        <Text>Strongest toward {best}°.</Text>
        {data.notes.map((n) => (
          <Text key={n} color="muted" fontSize="sm">
            {n}
          </Text>
        ))}
      </Box>
    </Flex>
  );
}
