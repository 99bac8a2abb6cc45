import { type Card, createEmptyCard, fsrs, type Grade, Rating } from "ts-fsrs";
import type { Schemas } from "../../api/schemas";
import { ALL, type Kind } from "./kinds";

type Answered = Schemas["PracticeAnswered"];

const scheduler = fsrs({ enable_fuzz: false });

/** How well a kind is known by one answer to it. */
function gradeOf({ right, confidence }: Answered): Grade {
  if (!right) return Rating.Again;
  return confidence === "sure" ? Rating.Easy : confidence === "guess" ? Rating.Hard : Rating.Good;
}

export interface Due {
  kind: Kind;
  /** When it is to be asked again; undefined for what was never asked. */
  at?: number;
  /** A mistake of the field that brought it back. */
  mistake?: string;
}

/**
 * When each kind is to be asked again. It follows from the answers alone, whichever device they
 * came from; a mistake made in the field since brings its kind back at once.
 */
export function schedule(answers: readonly Answered[], mistakes: readonly Schemas["PracticeMistake"][]): Due[] {
  const cards = new Map<Kind, Card>();
  const last = new Map<Kind, number>();
  for (const answer of [...answers].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))) {
    const at = new Date(answer.at);
    cards.set(answer.kind, scheduler.next(cards.get(answer.kind) ?? createEmptyCard(at), at, gradeOf(answer)).card);
    last.set(answer.kind, at.getTime());
  }
  return ALL.map((kind) => {
    const mistake = mistakes.findLast((m) => m.kind === kind && Date.parse(m.at) > (last.get(kind) ?? 0));
    const at = mistake ? Date.parse(mistake.at) : cards.get(kind)?.due.getTime();
    return { kind, ...(at !== undefined && { at }), ...(mistake && { mistake: mistake.words }) };
  });
}

export const isDue = ({ at }: Due, now: number): boolean => at !== undefined && at <= now;

/**
 * The kind that is asked next: what is due, longest due first; else what was never asked; else what
 * is due soonest. The same kind does not follow on itself while there is another.
 */
export function nextOf(all: readonly Due[], before: Kind | undefined, now: number): Kind | undefined {
  const others = all.filter((d) => d.kind !== before);
  const open = others.length > 0 ? others : all;
  const rank = (d: Due) => (isDue(d, now) ? 0 : d.at === undefined ? 1 : 2);
  return [...open].sort((a, b) => rank(a) - rank(b) || (a.at ?? 0) - (b.at ?? 0))[0]?.kind;
}
