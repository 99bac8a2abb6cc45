import { Box, Button, Flex, Grid, Input, Stack, Text } from "@chakra-ui/react";
import { DndContext, type DragEndEvent, MouseSensor, TouchSensor, useSensor, useSensors } from "@dnd-kit/core";
import { useQuery } from "@tanstack/react-query";
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { benchQuery, camerasQuery, shotAnswerQuery } from "../../api/queries";
import { FramePair } from "../../instruments/frame-pair/FramePair";
import { ShutterWindow } from "../../instruments/shutter-window/ShutterWindow";
import { FilterTray } from "../../instruments/stop-rail/FilterTray";
import { RAIL_ID, StopRail } from "../../instruments/stop-rail/StopRail";
import { faultsOf, isOfGear } from "../../lib/faults";
import { angle, iso, planned } from "../../lib/format";
import { byId, glassName, type Piece, stopsOf } from "../../lib/glass";
import { shuttersOf } from "../../lib/option";
import { Panel } from "../../lib/Panel";
import { useHotkeys } from "../../lib/useHotkeys";
import { useLastGood } from "../../lib/useLastGood";
import { ChoicesForm } from "./ChoicesForm";
import { type Answer, type Bench, type Draft, goneFrom, requestOf, type Scene, type Shot } from "./draft";
import { GoneNote } from "./GoneNote";
import { InThePlan, PlanLine } from "./InThePlan";
import { LightForm } from "./LightForm";
import { LookForm, offeredWords } from "./LookForm";
import { MotionForm } from "./MotionForm";
import { PartsForm } from "./PartsForm";
import { ConflictNote, SaveNote } from "./SaveNote";
import { Schools } from "./Schools";
import { ShotLine } from "./ShotLine";
import { useAutosave } from "./useAutosave";
import { useShotDraft } from "./useShotDraft";
import { Verdict } from "./Verdict";

const VerdictPart = memo(Verdict);
const RailPart = memo(StopRail);
const TrayPart = memo(FilterTray);
const LightPart = memo(LightForm);
const LookPart = memo(LookForm);
const ChoicesPart = memo(ChoicesForm);
const WindowPart = memo(ShutterWindow);
const MotionPart = memo(MotionForm);
const PartsPart = memo(PartsForm);
const SchoolsPart = memo(Schools);
const PairPart = memo(FramePair);
const PlanPart = memo(InThePlan);
const NO_SCENE: Scene = {};
const NO_CAMERAS: Schemas["StoredCamera"][] = [];

/** One shot under the hands: the rail, the forms and the verdict, each change answered at once. */
export function ShotBench({ shot }: { shot: Shot }) {
  const { draft, made, baseVersion, changes, setAround } = useShotDraft(shot);
  const { data: cameras = NO_CAMERAS } = useQuery(camerasQuery);
  const { data: bench, isPlaceholderData: isOtherBench } = useQuery({
    ...benchQuery(draft.cameraId, draft.rigId),
    placeholderData: (previous) => previous,
  });
  const gone = bench && !isOtherBench ? goneFrom(draft, bench) : [];
  const request = bench && !isOtherBench && gone.length === 0 ? requestOf(draft, bench) : null;
  const asked = useQuery(shotAnswerQuery(request));
  const answer = useLastGood(asked.data) ?? shot.answer.given;
  const isAnswered = asked.isSuccess && !asked.isPlaceholderData;
  // Pictures are drawn of what could be answered last.
  const shotRequest = useLastGood(isAnswered && request ? request : undefined);
  const hasName = draft.name.trim() !== "";
  // Gear of which nothing can be told keeps nothing typed from being stored.
  const canSave = hasName && (isAnswered || isOfGear(asked.error));
  const autosave = useAutosave(shot, baseVersion, draft, canSave);
  const faultOf = useMemo(() => faultsOf(asked.error), [asked.error]);

  setAround({ answer, cameras });
  // The verdict and the two instruments come first; what surrounds them follows.
  const later = useDeferredValue(answer);
  const whatIf = draft.scene?.whatIf;
  const pieces = useMemo(
    () => (bench ? byId(bench, whatIf?.glassStops, shot.answer.glass) : new Map<string, Piece>()),
    [bench, whatIf?.glassStops, shot.answer.glass],
  );
  const glassOf = useCallback((ids: readonly string[]) => glassName(ids, pieces), [pieces]);
  const moved = useMoved(answer, draft.look.fps, isAnswered);
  const blocks = useMemo(
    () => blocksOf(pieces, draft.choices.mounted, answer),
    [pieces, draft.choices.mounted, answer],
  );
  useHotkeys(useNumberKeys(bench, draft, changes.toggle, changes.clear));
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 8 } }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const id = String(active.id);
    if (over?.id === RAIL_ID && !answer.chosen.filters.includes(id)) changes.toggle(id);
  };

  if (!bench) return null;
  const isStale = Boolean(asked.error) || gone.length > 0;
  return (
    <DndContext sensors={sensors} onDragEnd={drop} accessibility={{ container: document.body }}>
      <Header draft={draft} onName={changes.setName}>
        <SaveNote state={autosave.state} canSave={canSave} />
        <Button size="sm" variant="outline" asChild>
          <Link to={`/card/${shot.shootId}?shot=${shot.id}`}>Card, now</Link>
        </Button>
        <PlanLine shot={shot} />
      </Header>
      <ConflictNote
        state={autosave.state}
        onKeepMine={autosave.keepMine}
        onTakeTheirs={() => {
          const theirs = autosave.takeTheirs();
          if (theirs) changes.replace(theirs);
        }}
      />
      <ShotLine draft={draft} bench={bench} onSay={changes.sayAnew} />
      {gone.length > 0 && <GoneNote names={glassOf(gone)} at={shot.answer.at} onDrop={() => changes.dropGone(gone)} />}
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 360px" }} gap="3" alignItems="start">
        <Panel
          heading="Verdict"
          gridColumn={{ lg: "2" }}
          gridRow={{ lg: "1 / span 8" }}
          position={{ lg: "sticky" }}
          top="2"
          maxH={{ lg: "calc(100dvh - 80px)" }}
          overflowY={{ lg: "auto" }}
          tabIndex={0}
        >
          <VerdictPart
            answer={answer}
            bench={bench}
            fault={asked.error?.message}
            made={made?.does}
            pieces={pieces}
            whatIf={whatIf}
            onPick={changes.pick}
            onSaw={changes.sawAs}
            onTrade={changes.trade}
            onUndo={changes.undo}
            onDropTried={changes.dropTried}
            onActivity={changes.setActivity}
          />
        </Panel>
        <Panel heading="Stop rail" note="light through glass onto the setting">
          <RailPart
            answer={answer}
            blocks={blocks}
            setting={`${answer.shutter.text} · ${iso(bench.optics.isoBase)}`}
            isStale={isStale}
          />
          <Box mt="2">
            <TrayPart
              filters={bench.filters}
              on={answer.chosen.filters}
              mounted={draft.choices.mounted}
              isPlaced={Boolean(draft.placed)}
              onToggle={changes.toggle}
              onClear={changes.clear}
            />
          </Box>
        </Panel>
        {answer.window && (
          <Panel heading="Shutter window" note="every demand on one scale; drag the shutter">
            <WindowPart
              window={answer.window}
              chosenS={answer.window.verdict.shutterS}
              setting={windowWords(answer.window.verdict, answer.chosen)}
              taken={takenBy(answer.chosen)}
              glassOf={glassOf}
              onShutter={changes.setShutter}
            />
          </Panel>
        )}
        <Grid templateColumns={{ base: "minmax(0,1fr)", md: "minmax(0,1fr) minmax(0,1fr)" }} gap="3">
          <Panel
            heading="Light"
            note={
              answer.low
                ? `${answer.low.text} to ${answer.reading.text}`
                : `${answer.reading.text}, ±${answer.reading.spreadStops.toFixed(1)}${draft.light.source === "simulated" ? " · simulated" : ""}`
            }
          >
            <LightPart
              light={draft.light}
              fps={draft.look.fps}
              ev={answer.reading.ev100}
              bench={bench}
              faultOf={faultOf}
              onChange={changes.setLight}
              onKind={changes.setKind}
            />
            <PlanPart shot={shot} />
          </Panel>
          <Panel heading="Look">
            <LookPart
              look={draft.look}
              scene={draft.scene ?? NO_SCENE}
              answer={later}
              bench={bench}
              cameras={cameras}
              offered={offeredWords(later)}
              moved={moved}
              faultOf={faultOf}
              onChange={changes.setLook}
              onCamera={changes.setCamera}
              onRig={changes.setRig}
              onScene={changes.setScene}
            />
          </Panel>
        </Grid>
        {shotRequest && later.window && (
          <Panel heading="Frame pair" note="drawn from these numbers">
            <PairPart shot={shotRequest} answer={later} glassOf={glassOf} />
          </Panel>
        )}
        {later.schools && (
          <Panel heading="Schools" note="what each would do with this shot">
            <SchoolsPart lines={later.schools} glassOf={glassOf} onTake={changes.setSchool} />
          </Panel>
        )}
        <Grid templateColumns={{ base: "minmax(0,1fr)", md: "minmax(0,3fr) minmax(0,2fr)" }} gap="3">
          <Panel heading="Motion" note="what passes, shakes, vibrates and pulses">
            <MotionPart
              scene={draft.scene ?? NO_SCENE}
              answer={later}
              bench={bench}
              faultOf={faultOf}
              onChange={changes.setScene}
            />
          </Panel>
          <Panel heading="Inside one frame">
            <PartsPart
              parts={draft.scene?.parts}
              answer={later}
              faultOf={faultOf}
              onChange={changes.setScene}
              onAim={changes.aim}
            />
          </Panel>
        </Grid>
        <Panel heading="How you like it">
          <ChoicesPart
            choices={draft.choices}
            bench={bench}
            effects={later.effects}
            other={otherWords(later, glassOf)}
            onChange={changes.setChoices}
          />
        </Panel>
      </Grid>
    </DndContext>
  );
}

/** The shutters the exposure needs, the same as the wished one where that exposes. */
function takenBy(chosen: Schemas["Option"]): number[] {
  const { fastestS, slowestS } = shuttersOf(chosen);
  return fastestS === slowestS ? [fastestS] : [fastestS, slowestS];
}

/** The shutter wished for, and where the exposure takes it. */
function windowWords({ text, shutterS, angleDeg }: Schemas["WindowVerdict"], chosen: Schemas["Option"]): string {
  const wished = angleDeg == null ? text : `${text} · ${angle(angleDeg)}`;
  const { fastestS, slowestS, text: taken } = shuttersOf(chosen);
  const isKept = Math.abs(fastestS / shutterS - 1) < 1e-3 && fastestS === slowestS;
  return isKept ? wished : `${wished} → ${taken}`;
}

/** What the other of blur and image first would put on. */
function otherWords({ otherPriority }: Answer, glassOf: (ids: readonly string[]) => string): string | undefined {
  if (!otherPriority) return undefined;
  return `With ${otherPriority.first} first it would be ${glassOf(otherPriority.filters)}: ${otherPriority.because}.`;
}

/** Says what a change of the frame rate did to the shutter, until the next one. */
function useMoved(answer: Answer, fps: string, isAnswered: boolean): string | undefined {
  const [moved, setMoved] = useState<string>();
  const before = useRef({ fps, text: answer.shutter.text });
  useEffect(() => {
    if (!isAnswered) return;
    const last = before.current;
    if (last.fps !== fps && last.text !== answer.shutter.text)
      setMoved(`At ${fps} fps the target is ${answer.shutter.text}; at ${last.fps} it was ${last.text}.`);
    before.current = { fps, text: answer.shutter.text };
  }, [answer, fps, isAnswered]);
  return moved;
}

function useNumberKeys(bench: Bench | undefined, draft: Draft, toggle: (id: string) => void, clear: () => void) {
  const mounted = draft.choices.mounted ?? [];
  const loose = bench?.filters.filter((f) => !mounted.includes(f.id)) ?? [];
  return (key: string): boolean => {
    if (key === "0") {
      clear();
      return true;
    }
    const filter = /^[1-9]$/.test(key) ? loose[Number(key) - 1] : undefined;
    if (filter) toggle(filter.id);
    return filter !== undefined;
  };
}

/** The glass on the rail, outermost first; what lives on the lens comes last. */
function blocksOf(pieces: Map<string, Piece>, mounted: readonly string[] = [], answer: Answer) {
  const { chosen } = answer;
  return [...mounted, ...chosen.filters]
    .reverse()
    .flatMap((id) => pieces.get(id) ?? [])
    .map((f) => ({ id: f.id, name: f.title, stops: stopsOf(f, chosen.settings) }))
    .filter((block) => block.stops > 0);
}

function Header({
  draft,
  onName,
  children,
}: {
  draft: Draft;
  onName: (name: string) => void;
  children: React.ReactNode;
}) {
  return (
    <Flex gap="3" align="baseline" wrap="wrap" mb="2">
      <Stack gap="0" flex="1" minW="240px">
        <Text as="h1" srOnly>
          Shot: {draft.name}
        </Text>
        <Input
          aria-label="Name of the shot"
          variant="flushed"
          fontSize="2xl"
          fontWeight="bold"
          h="44px"
          value={draft.name}
          maxLength={80}
          borderColor="transparent"
          onChange={(e) => onName(e.target.value)}
        />
      </Stack>
      <Text color="muted" fontSize="sm">
        {planned(draft.startsAt)}
      </Text>
      {children}
    </Flex>
  );
}
