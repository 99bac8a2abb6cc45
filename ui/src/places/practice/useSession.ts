import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { askableQuery, markQuery, questionQuery } from "../../api/queries";
import { useReach } from "../../api/reach";
import type { Schemas } from "../../api/schemas";
import { keepAnswer } from "../../offline/practiceAnswers";
import { toaster } from "../../shell/toaster";
import { isPictured, type Kind } from "./kinds";
import { nextOf } from "./schedule";
import type { PracticeSet } from "./sets";
import type { usePractice } from "./usePractice";

export type Confidence = Schemas["PracticeAnswered"]["confidence"];

/** How long a session is. */
export const SESSION_MS = 180_000;

/** Own gear is asked about where it has so many filters. */
const OWN_FILTERS = 3;
const SEEDS = 2 ** 32;

const randomSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0] ?? Math.floor(Math.random() * SEEDS);

interface Asking {
  request: Schemas["PracticeRequest"];
  /** When it was shown. */
  at: number;
}

export interface Done {
  kind: Kind;
  isRight: boolean;
  confidence: Confidence;
}

/** A session: a question after another, until its time is over. */
export function useSession(practice: ReturnType<typeof usePractice>, set: PracticeSet, hasPictures: boolean) {
  const queries = useQueryClient();
  const isThere = useReach();
  const { data: cameras } = useQuery(askableQuery);
  const [began, setBegan] = useState<number>();
  const [asking, setAsking] = useState<Asking>();
  const [marked, setMarked] = useState<Schemas["PracticeMarked"]>();
  const [given, setGiven] = useState<readonly number[]>([]);
  const [done, setDone] = useState<readonly Done[]>([]);
  const [confidence, setConfidence] = useState<Confidence>("think-so");
  const isBusy = useRef(false);
  const question = useQuery(questionQuery(asking?.request ?? null));

  const ask = () => {
    const chosen = new Map(set.kinds.map((k) => [k.kind, k.grade]));
    const open = practice.due.filter((d) => chosen.has(d.kind) && (!isPictured(d.kind) || (hasPictures && isThere)));
    const kind = nextOf(open, asking?.request.kind, Date.now());
    if (!kind) return setAsking(undefined);
    const fits = practice.progress?.kinds.find((k) => k.kind === kind)?.grade ?? 1;
    const seed = randomSeed();
    const own = (cameras ?? []).filter((c) => c.held.kit.length >= OWN_FILTERS);
    const mine = own[seed % Math.max(1, own.length)];
    setMarked(undefined);
    setGiven([]);
    setAsking({
      request: {
        kind,
        grade: chosen.get(kind) ?? fits,
        seed,
        ...(mine && { held: mine.held, titles: mine.titles ?? {} }),
      },
      at: Date.now(),
    });
  };
  const answer = async (choices: readonly number[]) => {
    if (!asking || marked || isBusy.current) return;
    isBusy.current = true;
    const { kind, grade = 1, seed } = asking.request;
    const seconds = Math.min((Date.now() - asking.at) / 1000, SESSION_MS / 1000);
    try {
      const told = await queries.fetchQuery(markQuery({ ...asking.request, answer: [...choices] }));
      setGiven(choices);
      setMarked(told);
      setDone([...done, { kind, isRight: told.right, confidence }]);
      keepAnswer({
        at: new Date().toISOString(),
        kind,
        grade,
        seed,
        right: told.right,
        ...(told.off !== undefined && { off: told.off }),
        seconds,
        confidence,
      });
    } catch (cause) {
      toaster.create({ title: "Not marked", description: cause instanceof Error ? cause.message : String(cause) });
    } finally {
      isBusy.current = false;
    }
  };
  return {
    question,
    asking,
    marked,
    given,
    done,
    confidence,
    setConfidence,
    answer,
    isRunning: began !== undefined && asking !== undefined,
    isOver: began !== undefined && asking === undefined,
    /** When its time is up; the question that is open then is the last. */
    endsAt: began === undefined ? undefined : began + SESSION_MS,
    begin: () => {
      setDone([]);
      setBegan(Date.now());
      ask();
    },
    next: () => (began !== undefined && Date.now() >= began + SESSION_MS ? setAsking(undefined) : ask()),
    end: () => setAsking(undefined),
    leave: () => {
      setBegan(undefined);
      setAsking(undefined);
    },
  };
}

export type Session = ReturnType<typeof useSession>;
