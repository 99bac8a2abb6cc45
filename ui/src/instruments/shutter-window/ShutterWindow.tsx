import { memo, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/schemas";
import type { State } from "../../lib/StateMark";
import { useWidth } from "../../lib/useWidth";
import { paint } from "../../theme/paint";
import { layoutWindow, type Row, type Step, type Stretch, stepAt, type WindowLayout } from "./layout";
import style from "./ShutterWindow.module.css";

const TOP = 30;
const ROW = 20;
const BAR = 11;

interface ShutterWindowProps {
  window: Schemas["WindowAnswer"];
  /** The shutter wished of the camera, in seconds, and what it is in words. */
  chosenS: number;
  setting: string;
  /** The times the exposure takes the shutter to, in seconds. */
  taken: readonly number[];
  glassOf: (ids: readonly string[]) => string;
  /** The user moved the shutter to one of the camera's steps. */
  onShutter: (text: string) => void;
}

/**
 * Every demand on one shutter, on one scale: long times to the left. A full bar
 * holds, an open bar is tight, a thin line breaks. The shutter is dragged along
 * the scale or moved by the arrow keys, from step to step of the camera.
 */
export function ShutterWindow({ window, chosenS, setting, taken, glassOf, onShutter }: ShutterWindowProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const left = width < 400 ? 100 : 112;
  return (
    <div ref={ref} data-testid="shutter-window">
      {width > 0 && (
        <Slider
          layout={layoutWindow(window, chosenS, taken, left, width - 14, glassOf)}
          {...{ width, left, setting, onShutter }}
          words={inWords(window, setting)}
        />
      )}
    </div>
  );
}

function inWords(window: Schemas["WindowAnswer"], setting: string): string {
  const [conflict] = window.conflicts;
  return conflict ? `${setting}. ${conflict.text}.` : `${setting}. No demand excludes another.`;
}

interface SliderProps {
  layout: WindowLayout;
  width: number;
  left: number;
  setting: string;
  words: string;
  onShutter: (text: string) => void;
}

function Slider({ layout, width, left, setting, words, onShutter }: SliderProps) {
  const [dragged, setDragged] = useState<Step | null>(null);
  // A key that comes before the answer to the last one goes on from where that went.
  const wanted = useRef<string | null>(null);
  useEffect(() => {
    if (layout.chosen.text === wanted.current) wanted.current = null;
  }, [layout.chosen.text]);
  const box = useRef<HTMLDivElement>(null);
  const height = TOP + layout.rows.length * ROW + 48;
  const x = dragged?.x ?? layout.chosen.x;
  const index = layout.steps.findIndex((s) => Math.abs(s.x - layout.chosen.x) < 0.5);

  const toStep = (step: Step | undefined) => {
    if (step && step.text !== dragged?.text) onShutter(step.text);
    return step;
  };
  const follow = (event: React.PointerEvent) => {
    const edge = box.current?.getBoundingClientRect();
    if (edge) setDragged(toStep(stepAt(layout.steps, event.clientX - edge.left)) ?? null);
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const ahead = layout.steps.findIndex((s) => s.text === wanted.current);
    const here =
      ahead >= 0 ? ahead : index >= 0 ? index : layout.steps.indexOf(stepAt(layout.steps, layout.chosen.x) as Step);
    const next = {
      ArrowLeft: here - 1,
      ArrowDown: here - 1,
      ArrowRight: here + 1,
      ArrowUp: here + 1,
      Home: 0,
      End: layout.steps.length - 1,
    }[event.key];
    if (next === undefined) return;
    event.preventDefault();
    const step = toStep(layout.steps[Math.max(0, Math.min(layout.steps.length - 1, next))]);
    wanted.current = step?.text ?? null;
  };
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label="Shutter"
      aria-orientation="horizontal"
      aria-valuemin={0}
      aria-valuemax={Math.max(0, layout.steps.length - 1)}
      aria-valuenow={Math.max(0, index)}
      aria-valuetext={words}
      className={style.slider}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        follow(event);
      }}
      onPointerMove={(event) => dragged && follow(event)}
      onPointerUp={() => setDragged(null)}
      onPointerCancel={() => setDragged(null)}
    >
      <svg width={width} height={height} aria-hidden="true" style={{ fontSize: 13, display: "block" }}>
        <Scale layout={layout} width={width} left={left} height={height} />
        <Together overlap={layout.overlap} y={TOP + layout.rows.length * ROW} />
        {layout.rows.map((row, i) => (
          <DemandRow key={row.key} row={row} y={TOP + i * ROW} left={left} />
        ))}
        {layout.taken.map((at) => (
          <Taken key={at} x={at} bottom={height - 34} />
        ))}
        <Handle x={x} width={width} left={left} bottom={height - 34} text={dragged ? dragged.text : setting} />
      </svg>
    </div>
  );
}

function Scale({ layout, width, left, height }: { layout: WindowLayout; width: number; left: number; height: number }) {
  const { ink, muted, edge } = paint;
  const y = height - 34;
  return (
    <g>
      <line x1={left} x2={width - 14} y1={y} y2={y} stroke={ink} strokeWidth={1.5} />
      {layout.steps.map((step) => (
        <StepMark key={step.text} x={step.x} y={y} width={width} label={step.isLabelled ? step.text : undefined} />
      ))}
      {layout.wish !== null && (
        <line
          x1={layout.wish}
          x2={layout.wish}
          y1={TOP - 4}
          y2={y}
          stroke={muted}
          strokeDasharray="2 4"
          strokeWidth={1.5}
        />
      )}
      <line x1={left} x2={left} y1={TOP - 8} y2={y} stroke={edge} />
    </g>
  );
}

interface StepMarkProps {
  x: number;
  y: number;
  width: number;
  label: string | undefined;
}

/** A step of the camera; none moves while the window's ends stay. */
const StepMark = memo(function StepMark({ x, y, width, label }: StepMarkProps) {
  return (
    <g>
      <line x1={x} x2={x} y1={y - 4} y2={y + (label ? 6 : 3)} stroke={paint.ink} />
      {label && (
        <text x={x} y={y + 20} textAnchor={x > width - 42 ? "end" : "middle"} fill={paint.ink}>
          {label}
        </text>
      )}
    </g>
  );
});

function DemandRow({ row, y, left }: { row: Row; y: number; left: number }) {
  const { ink } = paint;
  const most = left < 100 ? 11 : 17;
  const name = row.name.length > most ? `${row.name.slice(0, most - 1)}…` : row.name;
  return (
    <g>
      <text x={0} y={y + BAR} fill={ink} fontWeight={600}>
        {name}
      </text>
      {row.stretches.map((s) => (
        <Bar key={s.x} stretch={s} y={y + 2} height={BAR} />
      ))}
    </g>
  );
}

/** Told apart by shape first: full, open, thin. */
function Bar({ stretch, y, height }: { stretch: Stretch; y: number; height: number }) {
  const colour = paint[stretch.state];
  const { x, width, state } = stretch;
  if (state === "breaks") return <rect x={x} y={y + height / 2 - 1} width={width} height={2} fill={colour} />;
  if (state === "tight")
    return (
      <rect
        x={x + 1}
        y={y + 1}
        width={Math.max(1, width - 2)}
        height={height - 2}
        rx={3}
        fill="none"
        stroke={colour}
        strokeWidth={2}
      />
    );
  return <rect x={x} y={y} width={width} height={height} rx={3} fill={colour} />;
}

/** Grounds of what holds or is tight; nothing is drawn under what breaks. */
const SOFT: Partial<Record<State, string>> = { holds: paint.holdsSoft, tight: paint.tightSoft };

/** What all demands make of each time together, beside the scale. */
function Together({ overlap, y }: { overlap: Stretch[]; y: number }) {
  return (
    <g opacity={0.55}>
      {overlap.map(
        ({ x, width, state }) =>
          SOFT[state] && <rect key={x} x={x} y={TOP - 6} width={width} height={y - TOP + 10} fill={SOFT[state]} />,
      )}
    </g>
  );
}

/** Where the exposure takes the shutter. */
function Taken({ x, bottom }: { x: number; bottom: number }) {
  const { accent } = paint;
  return (
    <g stroke={accent} strokeWidth={2} fill="none">
      <line x1={x} x2={x} y1={TOP - 10} y2={bottom - 7} strokeDasharray="5 4" />
      <circle cx={x} cy={bottom} r={6} />
    </g>
  );
}

function Handle({
  x,
  width,
  left,
  bottom,
  text,
}: {
  x: number;
  width: number;
  left: number;
  bottom: number;
  text: string;
}) {
  const { accent } = paint;
  const reach = text.length * 4;
  const at = Math.min(Math.max(x, left + reach - 20), width - reach);
  return (
    <g>
      <line x1={x} x2={x} y1={TOP - 10} y2={bottom} stroke={accent} strokeWidth={3} />
      <circle cx={x} cy={bottom} r={7} fill={accent} />
      <text x={at} y={15} textAnchor="middle" fill={accent} style={{ fontWeight: 700, fontSize: 15 }}>
        {text}
      </text>
    </g>
  );
}
