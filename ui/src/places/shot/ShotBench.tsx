import { Button, Input, Stack, Text } from "@chakra-ui/react";
import { useDndMonitor } from "@dnd-kit/core";
import { useQuery } from "@tanstack/react-query";
import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import { usePlan } from "../../api/plan";
import { benchQuery, camerasQuery, shotAnswerQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { useComputed } from "../../api/useComputed";
import { FramePair } from "../../instruments/frame-pair/FramePair";
import { ShutterWindow } from "../../instruments/shutter-window/ShutterWindow";
import { FilterTray } from "../../instruments/stop-rail/FilterTray";
import { RAIL_ID, StopRail } from "../../instruments/stop-rail/StopRail";
import { Drawer } from "../../lib/Drawer";
import { faultsOf, isOfGear } from "../../lib/faults";
import { angle, iso } from "../../lib/format";
import { byId, glassName, type Piece, stopsOf } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { shuttersOf } from "../../lib/option";
import { Panel } from "../../lib/Panel";
import { useAfterPaint } from "../../lib/useAfterPaint";
import { useHotkeys } from "../../lib/useHotkeys";
import { useLastGood } from "../../lib/useLastGood";
import { useOnce } from "../../lib/useOnce";
import { planned } from "../../lib/zone";
import { CameraChoice } from "./CameraChoice";
import { ChoicesForm, FilterRoles } from "./ChoicesForm";
import {
  type Answer,
  type Bench,
  type Draft,
  FEW_OPTIONS,
  goneFrom,
  looseOf,
  requestOf,
  type Scene,
  type Shot,
} from "./draft";
import { GoneNote } from "./GoneNote";
import { InThePlan, PlanLine } from "./InThePlan";
import { LightForm } from "./LightForm";
import { LookForm, offeredWords } from "./LookForm";
import { MotionForm } from "./MotionForm";
import { PartsForm } from "./PartsForm";
import { ConflictNote, SaveNote } from "./SaveNote";
import { Schools } from "./Schools";
import style from "./ShotBench.module.css";
import { ShotHead } from "./ShotHead";
import { type Storable, useAutosave } from "./useAutosave";
import { useShotDraft } from "./useShotDraft";
import { Verdict } from "./Verdict";

const VerdictPart = memo(Verdict);
const RailPart = memo(StopRail);
const TrayPart = memo(FilterTray);
const LightPart = memo(LightForm);
const LookPart = memo(LookForm);
const CameraPart = memo(CameraChoice);
const ChoicesPart = memo(ChoicesForm);
const RolesPart = memo(FilterRoles);
const WindowPart = memo(ShutterWindow);
const MotionPart = memo(MotionForm);
const PartsPart = memo(PartsForm);
const SchoolsPart = memo(Schools);
const PairPart = memo(FramePair);
const PlanPart = memo(InThePlan);
const NO_SCENE: Scene = {};
const NO_FILTERS: Bench["filters"] = [];
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
  const [most, setMost] = useState<number | undefined>(FEW_OPTIONS);
  const request = bench && !isOtherBench && gone.length === 0 ? requestOf(draft, bench, most) : null;
  const asked = useComputed(shotAnswerQuery(request));
  const answer = useLastGood(asked.data) ?? shot.answer.given;
  const isAnswered = asked.isSuccess && !asked.isPlaceholderData;
  // Pictures are drawn of what could be answered last.
  const shotRequest = useLastGood(isAnswered && request ? request : undefined);
  const isAwaited = asked.isPlaceholderData && !asked.error;
  // The line follows the verdict: both at once would have to wait for each other.
  const said = useLastGood(isAwaited ? undefined : draft) ?? draft;
  const saidLater = useAfterPaint(said);
  const hasName = draft.name.trim() !== "";
  // Gear of which nothing can be told keeps nothing typed from being stored.
  const canSave = hasName && (isAnswered || isOfGear(asked.error));
  const isRefused = !hasName || gone.length > 0 || asked.error !== null;
  const storable: Storable = canSave ? "yes" : isRefused ? "no" : "not known yet";
  const autosave = useAutosave(shot, baseVersion, draft, storable);
  // So does the note of what is stored: said before the answer, it would take the answer's place in the frame.
  const saveState = useAfterPaint(useLastGood(isAwaited ? undefined : autosave.state) ?? autosave.state);
  const saidStorable = useLastGood(isAwaited ? undefined : storable) ?? storable;
  const faultOf = useMemo(() => faultsOf(asked.error), [asked.error]);

  setAround({ answer, cameras });
  // The verdict and the two instruments come first; what surrounds them follows.
  const later = useAfterPaint(answer);
  // The drawers stand below the preview, which comes with the first answer: before that a press would miss them.
  const isPlaced = useAfterPaint(useOnce(Boolean(shotRequest || (bench && !request) || asked.error)));
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
  const loose = useMemo(() => (bench ? looseOf(bench, draft.choices) : NO_FILTERS), [bench, draft.choices]);
  const taken = useMemo(() => takenBy(answer.chosen), [answer.chosen]);
  const day = usePlan(shot.startsAt ? shot.shootId : undefined, shot.id);
  const inPlan = day.of.get(shot.id);
  useHotkeys(useNumberKeys(loose, changes.toggle, changes.clear));
  useDndMonitor({
    onDragEnd: ({ active, over }) => {
      const id = String(active.id);
      if (over?.id === RAIL_ID && !answer.chosen.filters.includes(id)) changes.toggle(id);
    },
  });

  if (!bench) return null;
  // The answer belongs to an earlier, readable input.
  const isStale = Boolean(asked.error) || gone.length > 0;
  const others = bench.filters.filter((f) => !draft.choices.mounted?.includes(f.id)).length - loose.length;
  const tray = ({ chosen, placed }: Answer) => (
    <TrayPart
      filters={loose}
      others={others}
      on={chosen.filters}
      isPlaced={isStale ? Boolean(draft.placed) : placed}
      onToggle={changes.toggle}
      onClear={changes.clear}
    />
  );
  const forms = {
    camera: <CameraPart bench={bench} cameras={cameras} onCamera={changes.setCamera} onRig={changes.setRig} />,
    light: (
      <LightPart
        light={draft.light}
        fps={draft.look.fps}
        ev={later.reading.ev100}
        bench={bench}
        faultOf={faultOf}
        onChange={changes.setLight}
        onKind={changes.setKind}
      />
    ),
    look: (
      <LookPart
        look={draft.look}
        scene={draft.scene ?? NO_SCENE}
        answer={later}
        bench={bench}
        offered={offeredWords(later)}
        moved={moved}
        faultOf={faultOf}
        onChange={changes.setLook}
        onScene={changes.setScene}
      />
    ),
    motion: (
      <MotionPart
        scene={draft.scene ?? NO_SCENE}
        answer={later}
        bench={bench}
        faultOf={faultOf}
        onChange={changes.setScene}
      />
    ),
    kit: (
      <Stack gap="3">
        {tray(later)}
        <RolesPart choices={draft.choices} bench={bench} effects={later.effects} onChange={changes.setChoices} />
      </Stack>
    ),
    taste: (
      <ChoicesPart
        choices={draft.choices}
        bench={bench}
        other={otherWords(later, glassOf)}
        onChange={changes.setChoices}
      />
    ),
  };
  return (
    <>
      <Header draft={draft} onName={changes.setName} plan={<PlanLine planned={inPlan} isAwaited={day.isAwaited} />}>
        <SaveNote state={saveState} storable={saidStorable} />
        <Button size="sm" variant="outline" asChild>
          <Link to={`/card/${shot.shootId}?shot=${shot.id}`}>Field card now</Link>
        </Button>
      </Header>
      <ConflictNote
        state={saveState}
        onKeepMine={autosave.keepMine}
        onTakeTheirs={() => {
          const theirs = autosave.takeTheirs();
          if (theirs) changes.replace(theirs);
        }}
      />
      {gone.length > 0 && <GoneNote names={glassOf(gone)} at={shot.answer.at} onDrop={() => changes.dropGone(gone)} />}
      <div className={style.bench}>
        <div className={style.line}>
          <ShotHead
            draft={saidLater}
            bench={bench}
            glass={glassName(later.chosen.filters, pieces, later.chosen.settings)}
            forms={forms}
            lightNote={lightNote(later, draft)}
            onSay={changes.sayAnew}
          />
        </div>
        <Panel heading="Verdict" isDense isHeadingHidden className={style.verdict} tabIndex={0}>
          <VerdictPart
            answer={answer}
            later={later}
            bench={bench}
            fault={asked.error?.message}
            made={made?.does}
            pieces={pieces}
            whatIf={whatIf}
            onPick={changes.pick}
            onAll={most === undefined ? undefined : () => setMost(undefined)}
            onSaw={changes.sawAs}
            onTrade={changes.trade}
            onUndo={changes.undo}
            onDropTried={changes.dropTried}
            onActivity={changes.setActivity}
          />
        </Panel>
        <div className={style.instruments}>
          <Panel heading="Stop scale" className={style.rail} isDense>
            <RailPart
              answer={answer}
              blocks={blocks}
              setting={`${answer.shutter.text} · ${iso(bench.optics.isoBase)}`}
              isStale={isStale}
            />
            {tray(answer)}
          </Panel>
          {answer.window && (
            <Panel heading="Shutter window" className={style.window} isDense tabIndex={0}>
              <WindowPart
                window={answer.window}
                chosenS={answer.window.verdict.shutterS}
                setting={windowWords(answer.window.verdict, answer.chosen)}
                taken={taken}
                glassOf={glassOf}
                onShutter={changes.setShutter}
              />
            </Panel>
          )}
          {shotRequest && later.window && (
            <Panel heading="Preview" className={style.preview} isDense>
              <PairPart shot={shotRequest} answer={later} glassOf={glassOf} />
            </Panel>
          )}
        </div>
      </div>
      {isPlaced && (
        <div className={style.around}>
          {later.schools && (
            <Drawer heading="Approaches" result={schoolsResult(later.schools)}>
              <SchoolsPart lines={later.schools} glassOf={glassOf} onTake={changes.setSchool} />
            </Drawer>
          )}
          <Drawer heading="Inside one frame" result={partsResult(later)}>
            <PartsPart
              parts={draft.scene?.parts}
              answer={later}
              faultOf={faultOf}
              onChange={changes.setScene}
              onAim={changes.aim}
            />
          </Drawer>
          {inPlan && (
            <Drawer heading="In the plan" result={`${inPlan.glass}, ${inPlan.plan.state}`}>
              <PlanPart planned={inPlan} shootId={shot.shootId} />
            </Drawer>
          )}
        </div>
      )}
    </>
  );
}

/** The light as it stands, in EV at ISO 100. */
function lightNote({ low, reading }: Answer, { light }: Draft): string {
  if (low) return `${low.text} to ${reading.text}`;
  return `${reading.text}, ±${decimal(reading.spreadStops, 1)}${light.source === "simulated" ? " · simulated" : ""}`;
}

/** The school that is taken, and how it fares. */
function schoolsResult(lines: readonly Schemas["SchoolLine"][]): string {
  const taken = lines.find((l) => l.isTaken);
  return taken ? `${taken.name}: ${taken.text}, ${taken.state}` : `${lines.length} ways to expose it`;
}

/** What the parts of the frame come to. */
function partsResult({ contrast }: Answer): string {
  return contrast ? `expose for EV ${decimal(contrast.aimEv100, 1)}` : "one light all over";
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

function useNumberKeys(loose: Bench["filters"], toggle: (id: string) => void, clear: () => void) {
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

/** The glass on the rail, outermost first; what is always on comes last. */
function blocksOf(pieces: Map<string, Piece>, mounted: readonly string[] = [], answer: Answer) {
  const { chosen } = answer;
  return [...mounted, ...chosen.filters]
    .reverse()
    .flatMap((id) => pieces.get(id) ?? [])
    .map((f) => ({ id: f.id, name: f.title, stops: stopsOf(f, chosen.settings) }))
    .filter((block) => block.stops > 0);
}

interface HeaderProps {
  draft: Draft;
  onName: (name: string) => void;
  /** What the plan of the day makes of it, in a line. */
  plan: React.ReactNode;
  children: React.ReactNode;
}

function Header({ draft, onName, plan, children }: HeaderProps) {
  return (
    <div className={style.top}>
      <div className={style.name}>
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
      </div>
      {plan}
      <p className={style.when}>{planned(draft.startsAt)}</p>
      {children}
    </div>
  );
}
