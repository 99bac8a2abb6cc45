import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { memo } from "react";
import type { Schemas } from "../../api/schemas";
import { Chip } from "../../lib/Chip";
import { CopyButton } from "../../lib/CopyButton";
import { classes } from "../../lib/classes";
import { Drawer } from "../../lib/Drawer";
import { iso, signed, stops } from "../../lib/format";
import { glassName, type Piece } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { errorWords, settingWords, stateOf } from "../../lib/option";
import { type State, StateMark, StateShape } from "../../lib/StateMark";
import { type Answer, type Bench, FEW_OPTIONS, type Scene, triedWords } from "./draft";
import { Explain } from "./Explain";
import { NotJudged } from "./NotJudged";
import { Trades } from "./Trades";
import style from "./Verdict.module.css";

type Option = Schemas["Option"];
type Saw = Schemas["Look"]["saw"];

interface VerdictProps {
  answer: Answer;
  /** The answer that was painted last: what surrounds the verdict follows it. */
  later: Answer;
  bench: Bench;
  /** What is wrong with the input, when the answer is that of an earlier one. */
  fault: string | undefined;
  /** The trade that was made last and can be undone. */
  made: string | undefined;
  pieces: Map<string, Piece>;
  /** Gear that is only being tried. */
  whatIf: Schemas["WhatIf"] | undefined;
  onPick: (filters: string[]) => void;
  /** Asks for all options, where only the first are there. */
  onAll: (() => void) | undefined;
  onSaw: (saw: Saw) => void;
  onTrade: (trade: Schemas["WindowTrade"]) => void;
  onUndo: () => void;
  onDropTried: () => void;
  onActivity: (activity: Scene["activity"]) => void;
}

/** The answer: which glass, what to set, what error is left and why; then what else there is. */
export function Verdict({ answer, later, bench, fault, pieces, ...rest }: VerdictProps) {
  const { chosen } = answer;
  const isLooking = looksOn(answer);
  return (
    <div className={style.verdict}>
      {fault && (
        <div className={style.fault} role="status">
          <b>Cannot be answered as it stands.</b> {fault} Below is the last answer.
        </div>
      )}
      <div aria-live="polite" data-testid="verdict">
        <p className={classes(style.small, style.muted)}>{headline(answer, isLooking)}</p>
        <h2 className={style.glass} data-testid="glass">
          {glassName(chosen.filters, pieces, chosen.settings)}
        </h2>
        <p className={style.setting} data-testid="setting">
          {isLooking ? lockedWords(answer, bench) : settingWords(chosen)}
        </p>
        {!isLooking && chosen.ring && <p className={style.large}>Turn the ring {chosen.ring}.</p>}
        {!isLooking && (
          <p className={style.large} data-testid="error">
            <b>{signed(chosen.leftStops)}</b>
            {errorWords(chosen)}
          </p>
        )}
      </div>
      {isLooking ? (
        <LookButtons onSaw={rest.onSaw} />
      ) : (
        <div data-testid="state">
          <StateMark state={stateOf(answer)}>{answer.gives ?? stateWords(chosen)}</StateMark>
        </div>
      )}
      <Beside answer={later} bench={bench} pieces={pieces} {...rest} />
    </div>
  );
}

/** Whether the light is still being looked for, through one filter after another. */
const looksOn = (answer: Answer): boolean => answer.step !== undefined && !answer.settled;

/** What else is to be known of an answer: how sure it is, what to carry, the ways out, why. */
const Beside = memo(function Beside({
  answer,
  bench,
  made,
  pieces,
  whatIf,
  onPick,
  onAll,
  onTrade,
  onUndo,
  onDropTried,
  onActivity,
}: Omit<VerdictProps, "fault" | "later">) {
  const { chosen } = answer;
  const { recipe } = bench;
  const isLooking = looksOn(answer);
  return (
    <>
      {!isLooking && chosen.couldBe && chosen.couldBe.length > 0 && (
        <p className={style.small}>
          Within ±{decimal(chosen.spreadStops, 1)} stops it could also{" "}
          {chosen.couldBe.map((s) => COULD[s]).join(" or ")}.
        </p>
      )}
      {!isLooking && (answer.ifBrighter || answer.ifDarker) && (
        <p className={style.small} data-testid="spares">
          Spare:{" "}
          {[
            answer.ifBrighter && `${glassName(answer.ifBrighter.filters, pieces)} if it is brighter`,
            answer.ifDarker && `${glassName(answer.ifDarker.filters, pieces)} if it is darker`,
          ]
            .filter(Boolean)
            .join(", ")}
        </p>
      )}
      {!isLooking && answer.short && <Short short={answer.short} />}
      {!isLooking && answer.window && (
        <Trades window={answer.window} tried={triedWords(whatIf)} {...{ made, onTrade, onUndo, onDropTried }} />
      )}
      {warnings(chosen.filters, bench, pieces).map(({ state, words }) => (
        <StateMark key={words} state={state}>
          {words}
        </StateMark>
      ))}
      {!isLooking && answer.motion?.glassOptional && (
        <StateMark state="holds">ND optional: blur will not show.</StateMark>
      )}
      {!isLooking && answer.tilt && <StateMark state={answer.tilt.state}>{answer.tilt.words}</StateMark>}
      {!isLooking && answer.missing && <NotJudged missing={answer.missing} bench={bench} onActivity={onActivity} />}
      {bench.leftOut.map((f) => (
        <p key={f.id} className={classes(style.small, style.leftOut)}>
          <StateShape state="unknown" /> {f.title} is left out: {f.open}
        </p>
      ))}
      {!isLooking && (
        <div>
          <Others answer={answer} filters={pieces} onPick={onPick} onAll={onAll} />
          <Drawer isPlain heading="Why" result={reasonsOf(answer)[0]}>
            <div className={style.answer}>
              <Reasons reasons={reasonsOf(answer)} />
              {answer.assumed && (
                <p className={classes(style.small, style.muted)} data-testid="assumed">
                  <b>Assumed:</b> {answer.assumed.join("; ")}.
                </p>
              )}
              {answer.explain && <Explain lines={answer.explain} />}
            </div>
          </Drawer>
          {recipe.length > 0 && (
            <Drawer isPlain heading="Also set" result={recipe[0]}>
              <section aria-label="Settings recipe">
                {recipe.map((line) => (
                  <p key={line} className={style.small}>
                    {line}
                  </p>
                ))}
                <CopyButton text={[`${bench.camera.name}: ${settingWords(chosen)}`, ...recipe].join("\n")}>
                  Copy the settings
                </CopyButton>
              </section>
            </Drawer>
          )}
        </div>
      )}
    </>
  );
});

/** How much light is missing, and what would help. */
function Short({ short }: { short: Schemas["ShotShort"] }) {
  return (
    <div data-testid="short">
      <b>{stops(short.stops)} short of light. What would help, the cheapest first:</b>
      <ol className={style.list}>
        {short.helps.map((h) => (
          <li key={h.words}>
            {h.words} (<b>{stops(h.givesStops)}</b>)
          </li>
        ))}
      </ol>
    </div>
  );
}

/** What speaks against the glass that is taken, and glass that is left out because it does not go. */
function warnings(on: readonly string[], bench: Bench, pieces: Map<string, Piece>): { state: State; words: string }[] {
  const fits = (bench.fits ?? []).filter((fit) => on.includes(fit.filterId));
  const title = (id: string) => pieces.get(id)?.title ?? "that filter";
  return fits.flatMap(({ standing, because, filterId }): { state: State; words: string }[] => {
    const words = `${title(filterId)}: ${because[0]}`;
    if (standing === "unknown" || standing === "computed")
      return [{ state: "unknown", words: `${words}: test it before you leave` }];
    return standing === "tried" ? [] : [{ state: "tight", words }];
  });
}

/** Why: the whole shot's reasons, and what the camera's automatic would make of the glass. */
function reasonsOf({ window, chosen, auto }: Answer): string[] {
  const [conflict] = window?.conflicts ?? [];
  const reasons = window?.verdict.because ?? chosen.reasons ?? [];
  return [...reasons.filter((r) => r !== conflict?.text), ...(auto ? [auto.words] : [])];
}

function headline(answer: Answer, isLooking: boolean): string {
  if (isLooking)
    return `Put on, lock, and look (light so far EV ${decimal(answer.step?.lowEv100, 1)} to ${decimal(answer.step?.highEv100, 1)})`;
  const light = answer.low ? `${answer.low.text} to ${answer.reading.text}` : answer.reading.text;
  if (answer.placed) return `You put on, for ${light} as typed`;
  return answer.step ? `Settled by looking: put on, for ${light}` : `Put on, for ${light} as typed`;
}

const VERDICTS: Record<Option["verdict"], string> = {
  on: "within tolerance",
  iso: "ISO makes it up",
  shutter: "faster shutter",
  dark: "too dark",
  lock: "lock shutter and ISO",
  "float-iso": "auto ISO",
  "float-shutter": "auto shutter",
};

const COULD: Record<NonNullable<Option["couldBe"]>[number], string> = {
  holds: "hold",
  tight: "be tight",
  breaks: "break",
};

const stateWords = (option: Option): string => VERDICTS[option.verdict];

/** While looking, the camera is locked where the shot wants it: at the target and base ISO. */
const lockedWords = (answer: Answer, bench: Bench): string =>
  `${answer.shutter.text} · ${iso(bench.optics.isoBase)}, locked`;

function LookButtons({ onSaw }: { onSaw: (saw: Saw) => void }) {
  return (
    <Stack gap="2" role="group" aria-label="What do you see?">
      <Text>The picture is</Text>
      <Flex gap="2">
        <Button flex="1" size="lg" px="2" variant="outline" onClick={() => onSaw("dark")}>
          Too dark
        </Button>
        <Button flex="1" size="lg" px="2" variant="outline" onClick={() => onSaw("right")}>
          Right
        </Button>
        <Button flex="1" size="lg" px="2" variant="outline" onClick={() => onSaw("bright")}>
          Too bright
        </Button>
      </Flex>
    </Stack>
  );
}

function Reasons({ reasons }: { reasons: string[] }) {
  return (
    <ul className={style.list} data-testid="reasons">
      {reasons.map((reason) => (
        <li key={reason}>{reason}</li>
      ))}
    </ul>
  );
}

/** The other options, best first; choosing one puts it on the rail. */
function Others({
  answer,
  filters,
  onPick,
  onAll,
}: {
  answer: Answer;
  filters: Map<string, Piece>;
  onPick: (ids: string[]) => void;
  onAll: (() => void) | undefined;
}) {
  const key = (option: Option) => option.filters.join();
  const others = answer.solve.options.filter((option) => key(option) !== key(answer.chosen));
  const [next] = others;
  if (!next) return null;
  return (
    <Drawer
      isPlain
      heading="Other filters"
      result={`${glassName(next.filters, filters, next.settings)} ${signed(next.errorStops)}`}
    >
      <p className={classes(style.small, style.muted)}>By exposure alone</p>
      <div data-testid="others">
        {others.map((option) => (
          <button key={key(option)} type="button" className={style.other} onClick={() => onPick(option.filters)}>
            <span className={style[option.state]}>
              <StateShape state={option.state} />
            </span>
            <b>{glassName(option.filters, filters, option.settings)}</b>
            <span>
              {signed(option.errorStops)} · {option.state}
            </span>
          </button>
        ))}
      </div>
      {onAll && answer.solve.options.length >= FEW_OPTIONS && (
        <Chip isBare onClick={onAll}>
          All of them
        </Chip>
      )}
    </Drawer>
  );
}
