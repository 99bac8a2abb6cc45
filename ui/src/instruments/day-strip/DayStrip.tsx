import { memo, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/schemas";
import { greyOf } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { skyName } from "../../lib/skies";
import { useWidth } from "../../lib/useWidth";
import { clockIn } from "../../lib/zone";
import { paint } from "../../theme/paint";
import style from "./DayStrip.module.css";
import {
  BAR_HEIGHT,
  CURVE_HEIGHT,
  CURVE_TOP,
  HOUR,
  LANE_HEIGHT,
  LANES_TOP,
  LEFT,
  MINUTE,
  onGrid,
  SKY_HEIGHT,
  SKY_TOP,
  type StripScales,
  scales,
  stripHeight,
} from "./layout";

type Answer = Pick<Schemas["OutingAnswer"], "curve" | "days" | "swaps">;
type Sky = Schemas["CurvePoint"]["sky"];

/** A shot as it stands on the strip. */
export interface StripShot {
  id: string;
  name: string;
  lane: number;
  from: number;
  minutes: number;
  /** What its glass is called and how dark it is; undefined while its light is not known. */
  glass?: { name: string; stops: number };
  state: Schemas["OutingPlan"]["state"] | "unknown";
  words: string;
  packs: readonly number[];
}

interface DayStripProps {
  from: number;
  to: number;
  zone: string;
  answer: Answer;
  lanes: readonly string[];
  shots: readonly StripShot[];
  anchor: { at: number; ev: number } | null;
  chosen: string | null;
  onChoose: (id: string) => void;
  /** A shot that is being moved, and where it was let go. */
  onMove: (id: string, from: number, minutes: number, isDone: boolean) => void;
  onSky: (from: number, sky: Sky) => void;
}

const SKIES: readonly Sky[] = ["clear", "partly", "overcast"];
const SHAPES: Record<Sky, string> = { clear: "○", partly: "◐", overcast: "●" };
const STEP_MIN = 5;

/**
 * One day to scale: the light through it with its spread, the sky by the hour, and a
 * bar for each shot that is dragged along the day or stretched at its end.
 */
export function DayStrip(props: DayStripProps) {
  const { from, to, zone, answer, lanes, shots, anchor } = props;
  const [ref, width] = useWidth<HTMLDivElement>();
  const wide = Math.max(width, 620);
  const s = scales(from, to, wide);
  const height = stripHeight(lanes.length);
  const { muted, edge, lamp, lampSoft, lampInk, accent } = paint;
  const { curve } = answer;
  const drawn = useMemo(() => drawCurve(curve, from, to, wide), [curve, from, to, wide]);
  const hours = Array.from({ length: Math.round((to - from) / HOUR) + 1 }, (_, i) => from + i * HOUR);
  const marks = answer.swaps.filter((w) => Date.parse(w.at) >= from && Date.parse(w.at) <= to);
  return (
    <section ref={ref} className={style.strip} tabIndex={0} aria-label="Day strip">
      {width > 0 && (
        <svg width={wide} height={height} role="group" aria-label="Light and shots through the day">
          {[0, 5, 10, 15].map((ev) => (
            <g key={ev}>
              <path d={`M${LEFT} ${s.y(ev)}H${wide - 12}`} stroke={edge} />
              <text x={LEFT - 6} y={s.y(ev) + 4} textAnchor="end" fontSize="12" fill={muted}>
                {ev === 15 ? "EV 15" : ev}
              </text>
            </g>
          ))}
          {answer.days
            .filter((day) => Date.parse(day.noon) > from && Date.parse(day.noon) < to)
            .map((day) => (
              <SunHours key={day.noon} day={day} s={s} fill={lampSoft} />
            ))}
          {drawn && <path d={drawn.band} fill={lamp} opacity="0.35" />}
          {drawn && <path d={drawn.line} fill="none" stroke={lampInk} strokeWidth="2.5" />}
          {hours.map((at, i) => (
            <g key={at}>
              <path
                d={`M${s.x(at)} ${CURVE_TOP}V${height - 4}`}
                stroke={edge}
                {...(i % 3 !== 0 && { strokeDasharray: "2 5" })}
              />
              {i % 3 === 0 && (
                <text
                  x={Math.min(s.x(at) + 30, wide) - 30}
                  y={14}
                  textAnchor={s.x(at) > wide - 30 ? "end" : "middle"}
                  dx={s.x(at) > wide - 30 ? 30 : 0}
                  fontSize="12"
                  fill={muted}
                >
                  {clockIn(at, zone)}
                </text>
              )}
            </g>
          ))}
          {anchor && anchor.at >= from && anchor.at <= to && (
            <g>
              <title>{`Reading at ${clockIn(anchor.at, zone)}, EV ${decimal(anchor.ev, 1)}`}</title>
              <path d={`M${s.x(anchor.at)} ${CURVE_TOP}V${s.y(anchor.ev)}`} stroke={accent} strokeWidth="2" />
              <circle cx={s.x(anchor.at)} cy={s.y(anchor.ev)} r="6" fill={accent} />
            </g>
          )}
          <SkyRow curve={curve} from={from} to={to} zone={zone} width={wide} onSky={props.onSky} />
          {lanes.map((name, i) => (
            <text key={name} x={LEFT} y={LANES_TOP + i * LANE_HEIGHT - 4} fontSize="12" fill={muted}>
              {name}
            </text>
          ))}
          {shots.map((shot) => (
            <Bar
              key={shot.id}
              shot={shot}
              width={wide}
              from={from}
              to={to}
              zone={zone}
              isChosen={props.chosen === shot.id}
              onChoose={props.onChoose}
              onMove={props.onMove}
            />
          ))}
          {marks.map((w) => {
            const lane = shots.find((shot) => shot.id === w.shot)?.lane ?? 0;
            const x = s.x(Date.parse(w.at));
            const y = LANES_TOP + lane * LANE_HEIGHT;
            return (
              <g key={`${w.shot} ${w.at}`}>
                <title>{w.because}</title>
                <path d={`M${x - 7} ${y - 2}h14l-7 10z`} fill={accent} />
                {w.latest && (
                  <path
                    d={`M${s.x(Date.parse(w.latest))} ${y + 2}V${y + 6}H${x}`}
                    fill="none"
                    stroke={accent}
                    strokeWidth="2"
                  />
                )}
              </g>
            );
          })}
        </svg>
      )}
    </section>
  );
}

/** The curve and the band around it as paths, undefined where there are too few points. */
function drawCurve(curve: Answer["curve"], from: number, to: number, width: number) {
  const s = scales(from, to, width);
  const points = curve
    .map((p) => ({ x: s.x(Date.parse(p.time)), at: Date.parse(p.time), ev: p.ev100, spread: p.spreadStops }))
    .filter((p) => p.at >= from && p.at <= to);
  if (points.length < 2) return undefined;
  const path = (all: typeof points, of: (p: (typeof points)[number]) => number) =>
    all.map((p) => `L${p.x.toFixed(1)} ${s.y(of(p)).toFixed(1)}`).join("");
  const above = path(points, (p) => p.ev + p.spread).replace("L", "M");
  return {
    line: path(points, (p) => p.ev).replace("L", "M"),
    band: `${above}${path([...points].reverse(), (p) => p.ev - p.spread)}Z`,
  };
}

/** Golden hours as a wash behind the curve, sunrise and sunset as marks. */
function SunHours({ day, s, fill }: { day: Schemas["SunDay"]; s: StripScales; fill: string }) {
  const at = (text: string | null) => (text === null ? null : s.x(Date.parse(text)));
  const spans = [
    [at(day.blue.dawn), at(day.golden.dawn)],
    [at(day.golden.dusk), at(day.blue.dusk)],
  ];
  const top = CURVE_TOP + CURVE_HEIGHT - 14;
  return (
    <g>
      {spans.map(([a, b], i) =>
        a != null && b != null && b > a ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: the morning's and the evening's.
          <rect key={i} x={a} y={CURVE_TOP} width={b - a} height={CURVE_HEIGHT} fill={fill} />
        ) : null,
      )}
      {[day.sunrise, day.sunset].map((text) =>
        text === null ? null : (
          <text key={text} x={at(text) ?? 0} y={top + 10} textAnchor="middle" fontSize="11" fill="currentColor">
            {text === day.sunrise ? "sun ↑" : "sun ↓"}
          </text>
        ),
      )}
    </g>
  );
}

interface SkyRowProps extends Pick<DayStripProps, "from" | "to" | "zone" | "onSky"> {
  curve: Answer["curve"];
  width: number;
}

/** The sky hour by hour; a press makes it the next kind from that hour until it turns again. */
const SkyRow = memo(function SkyRow({ curve, from, to, zone, width, onSky }: SkyRowProps) {
  const { ink, edge, panel } = paint;
  const s = scales(from, to, width);
  const hours = Array.from({ length: Math.round((to - from) / HOUR) }, (_, i) => from + i * HOUR);
  const skies = useMemo(() => curve.map(({ time, sky }) => ({ from: Date.parse(time), sky })), [curve]);
  const skyAt = (at: number): Sky => skies.findLast((p) => p.from <= at)?.sky ?? skies[0]?.sky ?? "clear";
  if (curve.length === 0) return null;
  return (
    <>
      {hours.map((at) => {
        const sky = skyAt(at);
        const next = SKIES[(SKIES.indexOf(sky) + 1) % SKIES.length] ?? "clear";
        const choose = () => onSky(at, next);
        return (
          <g
            key={at}
            role="button"
            tabIndex={0}
            aria-label={`${clockIn(at, zone)}: ${skyName(sky)}. Press for ${skyName(next)}`}
            style={{ cursor: "pointer" }}
            onClick={choose}
            onKeyDown={(e) => {
              if (e.key !== "Enter" && e.key !== " ") return;
              e.preventDefault();
              choose();
            }}
          >
            <rect
              x={s.x(at)}
              y={SKY_TOP}
              width={Math.max(1, s.x(at + HOUR) - s.x(at))}
              height={SKY_HEIGHT}
              fill={panel}
              stroke={edge}
            />
            <text x={(s.x(at) + s.x(at + HOUR)) / 2} y={SKY_TOP + 28} textAnchor="middle" fontSize="16" fill={ink}>
              {SHAPES[sky]}
            </text>
          </g>
        );
      })}
    </>
  );
});

interface BarProps extends Pick<DayStripProps, "from" | "to" | "zone" | "onChoose" | "onMove"> {
  shot: StripShot;
  width: number;
  isChosen: boolean;
}

/** While one bar is dragged the others are not drawn again. */
const Bar = memo(
  DraggedBar,
  (a, b) =>
    a.width === b.width &&
    a.from === b.from &&
    a.to === b.to &&
    a.zone === b.zone &&
    a.isChosen === b.isChosen &&
    a.onMove === b.onMove &&
    JSON.stringify(a.shot) === JSON.stringify(b.shot),
);

/** A shot: dragged along the day, stretched at its right end, or moved by arrow keys. */
function DraggedBar({ shot, width, from, to, zone, isChosen, onChoose, onMove }: BarProps) {
  const s = scales(from, to, width);
  const { accent, breaks, tight, ink, edge } = paint;
  const drag = useRef<{
    grabbedAt: number;
    from: number;
    minutes: number;
    isStretch: boolean;
    isMoved: boolean;
  } | null>(null);
  const [isDragged, setDragged] = useState(false);
  const end = shot.from + shot.minutes * MINUTE;
  if (end < from || shot.from > to) return null;
  const x = s.x(shot.from);
  const y = LANES_TOP + shot.lane * LANE_HEIGHT;
  const w = Math.max(10, s.x(end) - x);
  const grey = greyOf(shot.glass?.stops ?? 0);
  const isKnown = shot.glass !== undefined;
  const border = shot.state === "breaks" ? breaks : shot.state === "tight" ? tight : ink;
  const svgX = (e: React.PointerEvent) =>
    e.clientX - (e.currentTarget.closest("svg")?.getBoundingClientRect().left ?? 0);
  const down = (e: React.PointerEvent<SVGGElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    const at = s.at(svgX(e));
    drag.current = {
      grabbedAt: at,
      from: shot.from,
      minutes: shot.minutes,
      isStretch: svgX(e) > x + w - 8 && w > 24,
      isMoved: false,
    };
    onChoose(shot.id);
  };
  const moved = (e: React.PointerEvent) => {
    const d = drag.current;
    if (!d) return null;
    const by = onGrid(s.at(svgX(e)) - d.grabbedAt, STEP_MIN);
    return d.isStretch
      ? { from: d.from, minutes: Math.max(STEP_MIN, d.minutes + by / MINUTE) }
      : { from: onGrid(d.from + by, 1), minutes: d.minutes };
  };
  const move = (e: React.PointerEvent) => {
    const to = moved(e);
    if (!to || !drag.current) return;
    if (to.from === shot.from && to.minutes === shot.minutes) return;
    drag.current.isMoved = true;
    setDragged(true);
    onMove(shot.id, to.from, to.minutes, false);
  };
  const up = (e: React.PointerEvent) => {
    const to = moved(e);
    const wasMoved = drag.current?.isMoved;
    drag.current = null;
    setDragged(false);
    if (to && wasMoved) onMove(shot.id, to.from, to.minutes, true);
  };
  const key = (e: React.KeyboardEvent) => {
    const step = (e.shiftKey ? 1 : STEP_MIN) * (e.key === "ArrowLeft" || e.key === "-" ? -1 : 1);
    if (e.key === "ArrowLeft" || e.key === "ArrowRight") onMove(shot.id, shot.from + step * MINUTE, shot.minutes, true);
    else if (e.key === "+" || e.key === "-") onMove(shot.id, shot.from, Math.max(1, shot.minutes + step), true);
    else return;
    e.preventDefault();
  };
  const words = `${shot.name}, ${clockIn(shot.from, zone)} to ${clockIn(end, zone)}: ${shot.words}`;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={shot.name}
      aria-valuemin={from / MINUTE}
      aria-valuemax={to / MINUTE}
      aria-valuenow={shot.from / MINUTE}
      aria-valuetext={words}
      style={{ cursor: isDragged ? "grabbing" : "grab", touchAction: "none" }}
      onFocus={() => onChoose(shot.id)}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={key}
    >
      <title>{words}</title>
      <rect
        x={x}
        y={y}
        width={w}
        height={BAR_HEIGHT}
        rx="6"
        fill={isKnown ? grey.fill : "none"}
        stroke={isChosen ? accent : isKnown ? border : edge}
        strokeWidth={isChosen ? 4 : 2}
        strokeDasharray={isKnown ? "" : "4 4"}
      />
      {shot.packs.slice(1).map((at) => (
        <path key={at} d={`M${s.x(at)} ${y}v${BAR_HEIGHT}`} stroke={isKnown ? grey.ink : ink} strokeDasharray="3 3" />
      ))}
      <path d={`M${x + w - 4} ${y + 12}v20`} stroke={isKnown ? grey.ink : ink} strokeWidth="2" />
      <text x={x + w + 6} y={y + 18} fontSize="13" fontWeight="bold" fill={ink} pointerEvents="none" textAnchor="start">
        {shot.glass?.name ?? "light not known"}
      </text>
      <text x={x + w + 6} y={y + 34} fontSize="12" fill={border} pointerEvents="none">
        {clockIn(shot.from, zone)} {shot.state}
      </text>
    </g>
  );
}
