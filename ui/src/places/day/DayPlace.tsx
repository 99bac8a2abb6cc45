import { Button, Link as ChakraLink, Flex, List, Skeleton, Stack, Text } from "@chakra-ui/react";
import { memo, useCallback, useState } from "react";
import { Link, useParams } from "react-router";
import { Problem } from "../../api/client";
import type { Schemas } from "../../api/schemas";
import { DayStrip, type StripShot } from "../../instruments/day-strip/DayStrip";
import { stripHeight } from "../../instruments/day-strip/layout";
import { Panel } from "../../lib/Panel";
import { PressButton } from "../../lib/PressButton";
import { StateMark } from "../../lib/StateMark";
import { useTitle } from "../../lib/useTitle";
import { clockIn, dateIn, dayIn, instantIn, zoneWords } from "../../lib/zone";
import { DayForm } from "./DayForm";
import style from "./DayPlace.module.css";
import { LightPanel } from "./LightPanel";
import { PlanPanel } from "./PlanPanel";
import { ShotSheet } from "./ShotSheet";
import { type DayAnswer, type DayWork, turned, useDay } from "./useDay";
import { YearPanel } from "./YearPanel";

type Day = DayWork;

const PlanPart = memo(PlanPanel);
const LightPart = memo(LightPanel);
const FormPart = memo(DayForm);
const ShotPart = memo(ShotSheet);
const YearPart = memo(YearPanel);

/** A shoot's days: the light, what goes on which camera when, and what was read. */
export function DayPlace() {
  const { id = "" } = useParams();
  const { work, answer, error, request } = useDay(id);
  const { day } = work;
  useTitle(day?.shoot.name, "Day");
  const [shownDate, setShownDate] = useState("");
  const [chosen, setChosen] = useState<string | null>(null);
  const onSky = useCallback(
    (at: number, sky: Schemas["SkyTurn"]["sky"]) => {
      if (work.day) work.setDay(turned(work.day.request, at, sky, work.day.zone));
    },
    [work],
  );
  if (!day || !request) {
    if (error) return <Text py="8">The day cannot be shown. {error.message}</Text>;
    return <Skeleton h="300px" aria-busy="true" aria-label="Opening the day" />;
  }
  const { zone } = day;
  const dates = datesOf(request, zone);
  const date = dates.includes(shownDate) ? shownDate : (dates[0] ?? "");
  const today = request.shots.filter((s) => dateIn(s.from, zone) === date);
  // The scale stays while a shot is dragged: it follows what is stored.
  const stored = day.request.shots.filter((s) => dateIn(s.from, zone) === date);
  const [from, to] = spanOf(date, zone, stored, answer);
  const lanes = lanesOf(day, today);
  const shots = answer ? stripShots(today, answer, lanes) : [];
  const shot = day.request.shots.find((s) => s.id === chosen);
  const anchor = day.shoot.day?.anchor;
  return (
    <div className={style.place}>
      <div className={style.head}>
        <h1>{day.shoot.name}</h1>
        <p className={style.quiet}>
          {day.shoot.place} · {zoneWords(zone)}
        </p>
        <ChakraLink asChild className={style.aside}>
          <Link to={`/card/${day.shoot.id}`}>Field card of the day</Link>
        </ChakraLink>
        <ChakraLink asChild>
          <Link to="/shoot">All shoots</Link>
        </ChakraLink>
      </div>
      {error && <StateMark state="unknown">{faultWords(error)} Below is the last plan.</StateMark>}
      <Panel
        isDense
        heading="Day"
        note="drag a shot along the day, stretch it at its end; press an hour to change its sky"
      >
        <div className={style.dates}>
          {dates.map((d) => (
            <PressButton key={d} isOn={d === date} onClick={() => setShownDate(d)}>
              {dayIn(instantIn(d, "12:00", zone), zone)}
            </PressButton>
          ))}
          {request.place && <SunWords answer={answer} date={date} zone={zone} />}
        </div>
        {!request.place && (
          <Text color="muted" mb="2">
            Say where the shoot is, below: then the light of the day is computed. Until then only light that was read
            counts.
          </Text>
        )}
        {answer ? (
          <DayStrip
            from={from}
            to={to}
            zone={zone}
            answer={answer}
            lanes={lanes.map((l) => l.name)}
            shots={shots}
            anchor={anchor ? { at: Date.parse(anchor.at), ev: anchor.ev100 } : null}
            chosen={chosen}
            onChoose={setChosen}
            onMove={work.moveShot}
            onSky={onSky}
          />
        ) : (
          <Skeleton h={`${stripHeight(lanes.length)}px`} />
        )}
        <Unplaced work={work} date={date} />
      </Panel>
      <div className={style.columns}>
        <Column name="Plan and year">
          {answer && <PlanPart work={work} answer={answer} onChoose={setChosen} />}
          {(answer || error) && request.place && request.shots.length > 0 && (
            <YearPart shootId={id} cameras={day.cameras} />
          )}
        </Column>
        <Column name="Shot, light and place">
          {shot && <ShotPart key={shot.id} work={work} shot={shot} />}
          <LightPart work={work} date={date} />
          <FormPart work={work} />
        </Column>
      </div>
    </div>
  );
}

/** A column that scrolls by itself on a desktop. */
function Column({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className={style.column} tabIndex={0} role="group" aria-label={name}>
      {children}
    </div>
  );
}

/** What is wrong, without the name of a field that nobody here has typed. */
const faultWords = (error: Error): string =>
  error instanceof Problem && error.faults[0] ? `Choose ${error.faults[0].allowed}.` : error.message;

/** The local dates that the span touches. */
function datesOf(request: Schemas["OutingRequest"], zone: string): string[] {
  const dates: string[] = [];
  for (let at = Date.parse(request.from); at < Date.parse(request.to); at += 3_600_000) {
    const date = dateIn(at, zone);
    if (dates.at(-1) !== date) dates.push(date);
  }
  return dates;
}

interface Lane {
  id: string;
  name: string;
}

const HOUR = 3_600_000;

/** From an hour before the first light or shot of a day to an hour after the last, on whole hours. */
function spanOf(
  date: string,
  zone: string,
  shots: readonly Schemas["OutingShot"][],
  answer: DayAnswer | undefined,
): [number, number] {
  const midnight = instantIn(date, "00:00", zone);
  const sun = answer?.days.find((d) => dateIn(d.noon, zone) === date)?.civil;
  const begins = [midnight + 6 * HOUR, ...shots.map((s) => Date.parse(s.from))];
  const ends = [midnight + 18 * HOUR, ...shots.map((s) => Date.parse(s.from) + s.minutes * 60_000 + HOUR)];
  if (sun?.dawn) begins.push(Date.parse(sun.dawn));
  if (sun?.dusk) ends.push(Date.parse(sun.dusk));
  const whole = (at: number, way: (x: number) => number) => midnight + way((at - midnight) / HOUR) * HOUR;
  return [
    Math.max(midnight, whole(Math.min(...begins) - HOUR / 2, Math.floor)),
    Math.min(midnight + 24 * HOUR, whole(Math.max(...ends) + HOUR / 2, Math.ceil)),
  ];
}

/** A lane for each camera that shoots on the day, in the order of its first shot. */
function lanesOf(day: NonNullable<Day["day"]>, shots: readonly Schemas["OutingShot"][]): Lane[] {
  const ids = [...new Set(shots.map((s) => s.cameraId))];
  return ids.map((id) => ({ id, name: day.cameras[id] ?? "a camera" }));
}

function stripShots(shots: readonly Schemas["OutingShot"][], answer: DayAnswer, lanes: Lane[]): StripShot[] {
  return shots.map((s) => {
    const plan = answer.shots.find((p) => p.id === s.id);
    const [first] = plan?.packs ?? [];
    return {
      id: s.id,
      name: s.name,
      lane: lanes.findIndex((l) => l.id === s.cameraId),
      from: Date.parse(s.from),
      minutes: s.minutes,
      state: plan?.state ?? "unknown",
      words: plan?.words ?? "its light is not known",
      packs: plan?.packs.map((p) => Date.parse(p.from)) ?? [],
      ...(first && { glass: { name: answer.names[first.stack] ?? first.stack, stops: first.settingStops } }),
    };
  });
}

/** The sun's day in words. */
function SunWords({ answer, date, zone }: { answer: DayAnswer | undefined; date: string; zone: string }) {
  const day = answer?.days.find((d) => dateIn(d.noon, zone) === date);
  if (!day) return <p className={style.sun} />;
  const at = (text: string | null) => (text === null ? "–" : clockIn(text, zone));
  const words = day.polar
    ? [`the sun stays ${day.polar === "day" ? "up" : "down"} all day`]
    : [
        `sunrise ${at(day.sunrise)}, sunset ${at(day.sunset)}`,
        `golden to ${at(day.golden.dawn)} and from ${at(day.golden.dusk)}`,
        `blue from ${at(day.civil.dawn)} to ${at(day.blue.dawn)} and ${at(day.blue.dusk)} to ${at(day.civil.dusk)}`,
      ];
  return (
    <p className={style.sun} data-testid="sun-words">
      {words.join(" · ")}
    </p>
  );
}

/** Shots that have no time yet. */
function Unplaced({ work, date }: { work: Day; date: string }) {
  const { day } = work;
  if (!day || day.unplaced.length === 0) return null;
  return (
    <Stack gap="1" mt="2">
      <Text color="muted">Without a time yet:</Text>
      <List.Root gap="1" listStyle="none">
        {day.unplaced.map((s) => (
          <List.Item key={s.id}>
            <Flex gap="3" align="center">
              {s.name}
              <Button
                size="sm"
                variant="outline"
                onClick={() => work.placeShot(s.id, instantIn(date, "12:00", day.zone))}
              >
                Put it at noon
              </Button>
            </Flex>
          </List.Item>
        ))}
      </List.Root>
    </Stack>
  );
}
