import type { Schemas } from "../api/schemas";
import { Chip } from "../lib/Chip";
import style from "./LineAnswer.module.css";

interface UnreadProps {
  unread: Schemas["AskAnswer"]["unread"][number];
  /** Puts what it might be in its place. */
  onReplace: (text: string) => void;
}

/** A stretch of a line that could not be read, with what it might be. */
export function Unread({ unread, onReplace }: UnreadProps) {
  return (
    <div className={style.unread} data-testid="unread">
      <p>
        Not read: <span className={style.wavy}>{unread.text}</span>
      </p>
      {unread.couldBe.map((text) => (
        <Chip key={text} onClick={() => onReplace(text)}>
          {text}
        </Chip>
      ))}
    </div>
  );
}
