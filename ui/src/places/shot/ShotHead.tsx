import { Button } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { sayQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { ACTIVITIES } from "../../lib/activities";
import { Chip } from "../../lib/Chip";
import { BARE } from "../../lib/glass";
import { useLastGood } from "../../lib/useLastGood";
import { partName } from "../../line/partName";
import type { Bench, Draft } from "./draft";
import { LineEditor, type Stretch } from "./LineEditor";
import style from "./ShotHead.module.css";

/** The small forms of a shot, in the order of the line. */
export const FORMS = {
  camera: "Camera",
  light: "Light",
  look: "Look",
  motion: "Motion",
  kit: "Filters",
  taste: "Preferences",
} as const;
export type FormKind = keyof typeof FORMS;

type Part = Schemas["Part"];

const FORM_OF: Record<Part["kind"], FormKind> = {
  camera: "camera",
  light: "light",
  look: "look",
  motion: "motion",
  lamps: "motion",
  kit: "kit",
  effect: "kit",
  layers: "kit",
  taste: "taste",
};

interface ShotHeadProps {
  draft: Draft;
  bench: Bench;
  /** What is on the lens, in words. */
  glass: string;
  forms: Record<FormKind, React.ReactNode>;
  lightNote: string;
  /** The shot is what its line says now, on the camera of that id. */
  onSay: (said: Schemas["ShotRequest"], cameraId: string) => void;
}

/** The shot as a sentence: each part opens its own small form, and the text itself can be written. */
export function ShotHead({ draft, bench, glass, forms, lightNote, onSay }: ShotHeadProps) {
  const titles = useMemo(() => Object.fromEntries(bench.filters.map((f) => [f.id, f.title])), [bench]);
  const { look, scene = {}, choices, light } = draft;
  const words = useQuery(sayQuery({ camera: bench.camera.name, titles, look, scene, choices, light }));
  // What cannot be said just now, as a distance that is half typed, leaves the line as it was.
  const said = useLastGood(words.data);
  const [open, setOpen] = useOpenForm();
  const [written, setWritten] = useState<Stretch>();
  // The part whose form is open, where it is one of the line.
  const [chosen, setChosen] = useState<Stretch>();
  const head = useRef<HTMLDivElement>(null);
  if (!said) return <div className={style.waiting} />;
  if (written) {
    return (
      <LineEditor
        draft={draft}
        line={said.line}
        stretch={written}
        onEnd={() => setWritten(undefined)}
        onSay={(request, cameraId) => {
          setWritten(undefined);
          onSay(request, cameraId);
        }}
      />
    );
  }
  const close = () => {
    // Back to its part, which may have other words by now.
    head.current?.querySelector<HTMLElement>(`[data-form="${open}"]`)?.focus();
    setOpen(undefined);
  };
  const buttons = buttonsOf(said.parts, { light, glass, usual: movesAs(draft, bench) });
  return (
    <div ref={head} className={style.head}>
      <div className={style.line} role="group" aria-label="The shot in one line" data-testid="shot-line">
        {buttons.map(({ id, form, kind, text, isSaid, stretch }) => (
          <Chip
            key={id}
            isOn={open === form}
            isQuiet={!isSaid}
            aria-label={`${partName(kind)}: ${text}`}
            aria-expanded={open === form}
            data-form={form}
            onClick={() => {
              setChosen(stretch);
              setOpen(open === form ? undefined : form);
            }}
          >
            {text}
          </Chip>
        ))}
        <Chip isBare onClick={() => setWritten({ start: said.line.length, end: said.line.length })}>
          Write it…
        </Chip>
      </div>
      {open && (
        <FormPanel
          name={FORMS[open]}
          note={open === "light" && lightNote}
          onWrite={chosen && (() => setWritten(chosen))}
          onClose={close}
        >
          {forms[open]}
        </FormPanel>
      )}
    </div>
  );
}

/** Which form is open, kept in the address: the way back closes it. */
function useOpenForm(): [FormKind | undefined, (form: FormKind | undefined) => void] {
  const [params, setParams] = useSearchParams();
  const asked = params.get("edit") ?? "";
  const open = asked in FORMS ? (asked as FormKind) : undefined;
  return [
    open,
    (form) =>
      setParams(
        (now) => {
          if (form) now.set("edit", form);
          else now.delete("edit");
          return now;
        },
        { replace: open !== undefined },
      ),
  ];
}

interface FormPanelProps {
  name: string;
  note: React.ReactNode;
  /** Writes the part anew in the line; left out where the line says nothing of it. */
  onWrite: (() => void) | undefined;
  onClose: () => void;
  children: React.ReactNode;
}

/** A form over the instruments, beside the verdict, which answers while it is edited. */
function FormPanel({ name, note, onWrite, onClose, children }: FormPanelProps) {
  const box = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another form is another thing to be led to.
  useEffect(() => {
    box.current?.focus({ preventScroll: true });
    // On a desktop it lies over the instruments; on a phone it stands in the page, perhaps below the fold.
    if (box.current && getComputedStyle(box.current).position === "static") box.current.scrollIntoView();
  }, [name]);
  return (
    <section
      ref={box}
      aria-label={name}
      tabIndex={-1}
      className={style.form}
      onKeyDown={(e) => {
        if (e.key !== "Escape") return;
        e.stopPropagation();
        onClose();
      }}
    >
      <div className={style.title}>
        <h2>{name}</h2>
        <p>{note}</p>
        {onWrite && (
          <Button size="sm" variant="ghost" onClick={onWrite}>
            Write it instead
          </Button>
        )}
        <Button size="sm" variant="outline" onClick={onClose}>
          Done
        </Button>
      </div>
      {children}
    </section>
  );
}

interface HeadButton {
  id: string;
  form: FormKind;
  kind: string;
  text: string;
  isSaid: boolean;
  /** Where it stands in the line, where it does. */
  stretch?: Stretch;
}

/** What is there without being said. */
interface Unsaid {
  light: Draft["light"];
  glass: string;
  /** How it usually moves as it is held, where the shot says nothing else. */
  usual: string | undefined;
}

function movesAs({ scene }: Draft, bench: Bench): string | undefined {
  const { activity, shakeDegS } = bench.rig.craft ?? {};
  if (scene?.activity || scene?.shakeDegS !== undefined) return undefined;
  if (shakeDegS !== undefined) return `usual shake ${shakeDegS}°/s`;
  return activity && `${ACTIVITIES[activity]}, as usual`;
}

/** What is put on is chosen from these filters, which are one button: the last answer stands before it. */
function chosenFrom(said: readonly HeadButton[]): HeadButton[] {
  const rings = said.filter((button) => button.kind === "kit");
  const [first, last] = [rings[0], rings.at(-1)];
  const others = said.filter((button) => button.kind !== "kit");
  if (!first?.stretch || !last?.stretch) return others;
  const text = first.text === BARE ? `${BARE} at hand` : `of ${rings.map((ring) => ring.text).join(", ")}`;
  return [{ ...first, text, stretch: { start: first.stretch.start, end: last.stretch.end } }, ...others];
}

/** A button for each part, and for each form of which the line says nothing yet. */
function buttonsOf(parts: readonly Part[], { light, glass, usual }: Unsaid): HeadButton[] {
  const unsaid: Record<FormKind, string> = {
    camera: "camera",
    light: light.kind === "looks" ? "light by looking" : "light",
    look: "look",
    motion: "what moves",
    kit: glass,
    taste: "preferences",
  };
  return (Object.keys(FORMS) as FormKind[]).flatMap((form): HeadButton[] => {
    const said = parts
      .filter((p) => FORM_OF[p.kind] === form)
      .map((p) => ({ id: `${form} ${p.start}`, form, kind: p.kind, text: p.text, isSaid: true, stretch: p }));
    if (form === "motion" && usual) return [...said, { id: form, form, kind: form, text: usual, isSaid: false }];
    if (form === "kit") return [{ id: form, form, kind: "filters", text: glass, isSaid: true }, ...chosenFrom(said)];
    return said.length > 0
      ? said
      : [{ id: form, form, kind: FORMS[form].toLowerCase(), text: unsaid[form], isSaid: false }];
  });
}
