import { Chip } from "../lib/Chip";
import { signed } from "../lib/format";
import { BARE, together } from "../lib/glass";
import { decimal } from "../lib/locale";
import { StateMark } from "../lib/StateMark";
import style from "./LineAnswer.module.css";
import { partName } from "./partName";
import { Unread } from "./Unread";
import type { Answer, Part } from "./useLine";

interface LineAnswerProps {
  answer: Answer;
  /** Puts another text in place of a stretch of the line. */
  onReplace: (stretch: { start: number; end: number }, text: string) => void;
  /** Takes a part to the line, to be written anew. */
  onEdit: (part: Part) => void;
}

/** What a line comes to: the glass first, then how it was read, each part to be changed. */
export function LineAnswer({ answer, onReplace, onEdit }: LineAnswerProps) {
  return (
    <div className={style.answer}>
      {answer.needStops !== undefined && (
        <>
          <p className={style.glass} data-testid="line-glass">
            {together(answer.filters)}
          </p>
          <p className={style.setting} data-testid="line-setting">
            {answer.setting}
          </p>
          <StateMark state={answer.state}>{answer.gives}</StateMark>
          <p data-testid="line-others">
            {`${needWords(answer.needStops)}${lightWords(answer)}. `}
            {answer.alternatives
              .map((other) => `${together(other.filters)} ${signed(other.errorStops ?? 0)}`)
              .join(", ")}
          </p>
          {(answer.ifBrighter || answer.ifDarker) && (
            <p data-testid="line-pocket">
              Spare:{" "}
              {[
                answer.ifBrighter && `${together(answer.ifBrighter.filters, BARE)} if it is brighter`,
                answer.ifDarker && `${together(answer.ifDarker.filters, BARE)} if it is darker`,
              ]
                .filter(Boolean)
                .join(", ")}
            </p>
          )}
        </>
      )}
      {answer.needStops === undefined && <StateMark state="unknown">{answer.words}</StateMark>}
      <div className={style.parts} role="group" aria-label="Parts of the line">
        {answer.parts.map((part) => (
          <Chip
            key={`${part.kind} ${part.text} ${part.start}`}
            isQuiet={part.assumed}
            className={part.assumed && style.assumed}
            title={part.assumed ? `${partName(part.kind)}, assumed` : partName(part.kind)}
            aria-label={`${partName(part.kind)}: ${part.text}${part.assumed ? ", assumed" : ""}`}
            onClick={() => onEdit(part)}
          >
            {part.text}
          </Chip>
        ))}
      </div>
      {answer.unread.map((unread) => (
        <Unread key={unread.start} unread={unread} onReplace={(text) => onReplace(unread, text)} />
      ))}
    </div>
  );
}

const needWords = (need: number): string =>
  need >= 0 ? `Needs ${decimal(need, 1)} stops` : `${decimal(-need, 1)} stops short of light`;

function lightWords({ ev100, lowEv100, highEv100, spreadStops }: Answer): string {
  if (lowEv100 !== undefined && highEv100 !== undefined)
    return ` at the highest light, EV ${decimal(lowEv100, 1)} to ${decimal(highEv100, 1)}`;
  if (ev100 === undefined) return "";
  return `, EV ${decimal(ev100, 1)}${spreadStops && spreadStops >= 0.05 ? ` ±${decimal(spreadStops, 1)}` : ""}`;
}
