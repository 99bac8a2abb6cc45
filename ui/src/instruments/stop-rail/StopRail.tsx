import { useDroppable } from "@dnd-kit/core";
import { memo } from "react";
import { signed, stops } from "../../lib/format";
import { greyOf } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { useWidth } from "../../lib/useWidth";
import { paint } from "../../theme/paint";
import { layoutRail, type RailInput, type RailLayout } from "./layout";
import style from "./StopRail.module.css";

export const RAIL_ID = "stop-rail";

const HEIGHT = 172;
const LANE = { y: 46, height: 48 };
const PUSH = { y: 97, height: 18 };
const AXIS_Y = 122;

interface StopRailProps extends RailInput {
  /** What the camera is set to, as in "1/50 · ISO 100". */
  setting: string;
  /** True while the answer belongs to an earlier, readable input. */
  isStale: boolean;
}

/**
 * Light comes in from the bright side, glass takes it down, and it should land on
 * the setting. One scale in stops; filters are as wide as their stops and as dark
 * as they really are. Glass can be dropped on it.
 */
export function StopRail({ answer, blocks, setting, isStale }: StopRailProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const { setNodeRef, isOver } = useDroppable({ id: RAIL_ID });
  return (
    <div
      ref={(node) => {
        ref.current = node;
        setNodeRef(node);
      }}
      className={style.rail}
      data-over={isOver || undefined}
      data-stale={isStale || undefined}
      style={{ height: HEIGHT }}
      data-testid="stop-rail"
    >
      {width > 0 && <Drawing layout={layoutRail({ answer, blocks }, width)} {...{ answer, setting, width }} />}
    </div>
  );
}

/** The same in words, for those who do not see it. */
function inWords(answer: StopRailProps["answer"], layout: RailLayout, setting: string): string {
  const glass = layout.blocks.map((b) => `${b.name} cuts ${stops(b.stops)}`).join(", ") || "no filter";
  const range = answer.low ? `Light from ${answer.low.text} to ${answer.reading.text}` : `Light ${answer.reading.text}`;
  return `Stop scale. ${range}. ${glass}. Error ${signed(answer.chosen.errorStops)} stops at ${setting}.`;
}

interface DrawingProps {
  layout: RailLayout;
  answer: StopRailProps["answer"];
  setting: string;
  width: number;
}

function Drawing({ layout, answer, setting, width }: DrawingProps) {
  const { ink, muted, accent, accentSoft, lamp, lampInk, lampSoft } = paint;
  const laneMiddle = LANE.y + LANE.height / 2;
  const bottom = LANE.y + LANE.height;
  const lightText = `light ${answer.low ? `${answer.low.text} to ${decimal(answer.reading.ev100, 1)}` : answer.reading.text}`;
  return (
    <svg
      width={width}
      height={HEIGHT}
      role="img"
      aria-label={inWords(answer, layout, setting)}
      style={{ fontSize: 13 }}
    >
      <rect x={layout.band.x} y={LANE.y - 6} width={layout.band.width} height={AXIS_Y - LANE.y + 6} fill={accentSoft} />
      <rect x={layout.light.x} y={LANE.y - 6} width={layout.light.width} height={LANE.height + 12} fill={lampSoft} />

      <line x1={0} x2={width} y1={AXIS_Y} y2={AXIS_Y} stroke={ink} strokeWidth={1.5} />
      {layout.rungs.map((rung) => (
        <Rung key={rung.count} {...rung} />
      ))}
      <text x={4} y={HEIGHT - 8} fill={muted}>
        ◂ darker
      </text>
      <text x={width / 2} y={HEIGHT - 8} fill={muted} textAnchor="middle">
        {width > 520 ? "the shutter the bare camera would need, counted in whole stops" : "bare camera's shutter"}
      </text>
      <text x={width - 4} y={HEIGHT - 8} fill={muted} textAnchor="end">
        brighter ▸
      </text>

      {layout.blocks.map((block) => (
        <GlassBlock key={block.id} block={block} edge={muted} />
      ))}
      {layout.landing.width > 1 && (
        <rect x={layout.landing.x} y={bottom - 8} width={layout.landing.width} height={8} fill={lamp} />
      )}
      {layout.push && <Push push={layout.push} accent={accent} />}

      <line x1={layout.settingX} x2={layout.settingX} y1={LANE.y - 12} y2={AXIS_Y} stroke={accent} strokeWidth={3} />
      <SettingLabel
        x={layout.settingX}
        width={width}
        text={setting}
        fill={accent}
        light={{ x: layout.lightX, text: lightText }}
      />
      <line
        x1={layout.landingX}
        x2={layout.landingX}
        y1={LANE.y - 10}
        y2={bottom + 2}
        stroke={lampInk}
        strokeWidth={2}
        strokeDasharray="4 3"
      />
      {layout.blocks.map((block) => (
        <BlockLabel key={block.id} block={block} />
      ))}
      <ErrorLabel layout={layout} width={width} error={answer.chosen.errorStops} fill={ink} />

      <path d={`M${layout.lightX} ${laneMiddle}l14 -11v22z`} fill={lamp} />
      <LightLabel x={layout.lightX} width={width} text={lightText} fill={lampInk} />
    </svg>
  );
}

/** A stop of the scale; most stay where they are from one answer to the next. */
const Rung = memo(function Rung({ x, text, isLabelled }: RailLayout["rungs"][number]) {
  return (
    <g>
      <line x1={x} x2={x} y1={AXIS_Y - 5} y2={AXIS_Y + 5} stroke={paint.ink} strokeWidth={1.5} />
      {isLabelled && (
        <text x={x} y={AXIS_Y + 19} textAnchor="middle" fill={paint.ink}>
          {text}
        </text>
      )}
    </g>
  );
});

type Placed = RailLayout["blocks"][number];

function GlassBlock({ block, edge }: { block: Placed; edge: string }) {
  const { fill } = greyOf(block.stops);
  return <rect x={block.x} y={LANE.y} width={block.width} height={LANE.height} rx={4} fill={fill} stroke={edge} />;
}

/** Name and stops of a block, with a rim of its own grey where a line runs behind it. */
function BlockLabel({ block }: { block: Placed }) {
  const grey = greyOf(block.stops);
  if (block.width <= 34) return null;
  const shared = {
    x: block.x + block.width / 2,
    textAnchor: "middle",
    fill: grey.ink,
    stroke: grey.fill,
    strokeWidth: 5,
    paintOrder: "stroke",
  } as const;
  return (
    <>
      <text {...shared} y={LANE.y + 21} style={{ fontWeight: 700, fontSize: 15 }}>
        {block.name}
      </text>
      <text {...shared} y={LANE.y + 38}>
        {decimal(block.stops, 1)}
      </text>
    </>
  );
}

/** ISO pushes the light back up, a faster shutter takes it further down. */
function Push({ push, accent }: { push: NonNullable<RailLayout["push"]>; accent: string }) {
  const text = push.kind === "iso" ? `ISO +${decimal(push.stops, 1)}` : `shutter −${decimal(push.stops, 1)}`;
  const tip = push.kind === "iso" ? push.x + push.width : push.x;
  const back = push.kind === "iso" ? -7 : 7;
  const y = PUSH.y + PUSH.height / 2;
  return (
    <g>
      <rect
        x={push.x}
        y={PUSH.y}
        width={push.width}
        height={PUSH.height}
        rx={3}
        fill="none"
        stroke={accent}
        strokeWidth={2}
        strokeDasharray={push.kind === "iso" ? undefined : "5 3"}
      />
      <path d={`M${tip} ${y}l${back} -6v12z`} fill={accent} />
      <text x={push.x + push.width + 8} y={y + 4.5} fill={accent} style={{ fontWeight: 700 }}>
        {text}
      </text>
    </g>
  );
}

/** Where the light lands, as a signed error: on the free side of its mark. */
function ErrorLabel({
  layout,
  width,
  error,
  fill,
}: {
  layout: RailLayout;
  width: number;
  error: number;
  fill: string;
}) {
  const isNearEdge = layout.landingX > width - 90;
  return (
    <text
      x={layout.landingX + (isNearEdge ? -6 : 6)}
      y={40}
      textAnchor={isNearEdge ? "end" : "start"}
      fill={fill}
      style={{ fontWeight: 700, fontSize: 17 }}
      data-testid="rail-error"
    >
      {signed(error)}
    </text>
  );
}

interface LabelProps {
  x: number;
  width: number;
  text: string;
  fill: string;
}

/** A letter of a label is no wider than this, in pixels. */
const LETTER = 8;

/** The light, before its mark where there is room, and inside the drawing. */
const LightLabel = ({ x, width, text, fill }: LabelProps) => (
  <text x={lightEnd(x, width, text)} y={16} textAnchor="end" fill={fill} style={{ fontWeight: 700, fontSize: 15 }}>
    {text}
  </text>
);

const lightEnd = (x: number, width: number, text: string): number =>
  Math.max(Math.min(x + 4, width - 4), text.length * LETTER);

/** The camera's setting, kept inside the drawing and, where that can be, before what is said of the light. */
function SettingLabel({ x, width, text, fill, light }: LabelProps & { light: { x: number; text: string } }) {
  const reach = (text.length * LETTER) / 2;
  const before = lightEnd(light.x, width, light.text) - light.text.length * LETTER - LETTER;
  const most = light.x > x ? Math.min(width, before) : width;
  const at = Math.max(Math.min(x, most - reach), reach);
  return (
    <text x={at} y={16} textAnchor="middle" fill={fill} style={{ fontWeight: 700, fontSize: 15 }}>
      {text}
    </text>
  );
}
