import { Box, Button, Link as ChakraLink, Flex, List, Stack, Text } from "@chakra-ui/react";
import { memo } from "react";
import { Link } from "react-router";
import { type DayPlan, packWords } from "../../api/plan";
import type { Schemas } from "../../api/schemas";
import { classes } from "../../lib/classes";
import { Lights } from "../../lib/Lights";
import { Panel } from "../../lib/Panel";
import { StateShape } from "../../lib/StateMark";
import { clockIn, dayIn } from "../../lib/zone";
import { paint } from "../../theme/paint";
import style from "./PlanPanel.module.css";
import type { DayWork } from "./useDay";

interface PlanPanelProps {
  work: DayWork;
  answer: DayPlan;
  onChoose: (id: string) => void;
}

/** What goes on which camera when, the swaps with their latest minute, and what changed. */
export function PlanPanel({ work, answer, onChoose }: PlanPanelProps) {
  const { day } = work;
  if (!day) return null;
  const { zone, shoot, request } = day;
  const shotOf = new Map(request.shots.map((s) => [s.id, s]));
  const keep = () =>
    work.keepPlan({
      at: new Date().toISOString(),
      glass: Object.fromEntries(answer.shots.map((s) => [s.id, s.packs[0]?.stack ?? ""])),
    });
  return (
    <Panel
      heading="Plan"
      note={`${answer.swaps.length} ${answer.swaps.length === 1 ? "swap" : "swaps"}, each for what it gains`}
    >
      <Stack gap="3">
        {answer.changes.length > 0 && (
          <Box bg="accentSoft" rounded="md" p="3" role="status" data-testid="changes">
            <b>Changed since the plan was made</b>
            {shoot.kept && ` on ${dayIn(shoot.kept.at, zone)} at ${clockIn(shoot.kept.at, zone)}`}:
            <List.Root ps="4">
              {answer.changes.map((c) => (
                <List.Item key={c}>{c}</List.Item>
              ))}
            </List.Root>
          </Box>
        )}
        <div data-testid="plan">
          {answer.shots.map((p) => {
            const shot = shotOf.get(p.id);
            return (
              shot && (
                <PlanRow
                  key={p.id}
                  plan={p}
                  shot={shot}
                  camera={day.cameras[shot.cameraId] ?? ""}
                  zone={zone}
                  names={answer.names}
                  onChoose={onChoose}
                />
              )
            );
          })}
          {answer.unknown.map((id) => (
            <div key={id} className={style.row} style={{ color: paint.unknown }}>
              <StateShape state="unknown" />
              {shotOf.get(id)?.name}: its light is not known
            </div>
          ))}
        </div>
        <Swaps swaps={answer.swaps} />
        <Flex gap="2" wrap="wrap">
          <Button variant="outline" onClick={keep}>
            Save this plan
          </Button>
          {(["ics", "csv", "json"] as const).map((format) => (
            <Button key={format} asChild variant="ghost">
              <a href={`/api/shoots/${shoot.id}/plan?format=${format}`} download>
                {{ ics: "Calendar", csv: "Plan as CSV", json: "Plan as JSON" }[format]}
              </a>
            </Button>
          ))}
        </Flex>
      </Stack>
    </Panel>
  );
}

/** The swaps in words, drawn again only when one of them changes. */
const Swaps = memo(
  function Swaps({ swaps }: Pick<DayPlan, "swaps">) {
    if (swaps.length === 0) return null;
    return (
      <Stack gap="1" as="section" aria-label="Swaps">
        <Text fontWeight="bold">Swaps</Text>
        <List.Root gap="1" ps="4">
          {swaps.map((w) => (
            <Swap key={`${w.shot} ${w.at}`} because={w.because} />
          ))}
        </List.Root>
        <Text color="muted" fontSize="sm">
          Power off or disarm before each swap.
        </Text>
      </Stack>
    );
  },
  (a, b) => JSON.stringify(a.swaps) === JSON.stringify(b.swaps),
);

const Swap = memo(function Swap({ because }: { because: string }) {
  return <List.Item _marker={{ color: "muted" }}>{because}.</List.Item>;
});

interface PlanRowProps {
  plan: Schemas["OutingPlan"];
  shot: Schemas["OutingShot"];
  camera: string;
  zone: string;
  names: Record<string, string>;
  onChoose: (id: string) => void;
}

/** One shot of the plan. While another one is dragged it is not drawn again. */
const PlanRow = memo(
  function PlanRow({ plan: p, shot, camera, zone, names, onChoose }: PlanRowProps) {
    const last = p.packs.at(-1)?.lastMinute;
    const from = p.packs[0]?.from ?? shot.from;
    const spares = [...new Set(p.packs.flatMap((k) => [k.brighter, k.darker]))].flatMap((id) => id ?? []);
    return (
      <div className={style.row}>
        <div className={style.shape} style={{ color: paint[p.state] }}>
          <StateShape state={p.state} />
        </div>
        <div className={style.told}>
          <p className={style.strong}>
            {dayIn(from, zone)}, {clockIn(from, zone)} · {packWords(p, names)}
          </p>
          <p>
            <ChakraLink asChild>
              <Link to={`/shot/${p.id}`}>{shot.name}</Link>
            </ChakraLink>{" "}
            <span className={style.quiet}>{camera}</span>
          </p>
          <p className={classes(style.quiet, style.small)}>
            {p.words}
            {last && ` · last shot ends ${clockIn(last, zone)}`}
            {p.sun && ` · ${p.sun.words}`}
          </p>
          <Lights lights={p.lights} />
          {spares.length > 0 && (
            <p className={style.small}>
              Spare, should the light change: {spares.map((id) => names[id] ?? id).join(" or ")}
            </p>
          )}
          {p.remedies.map((r) => (
            <p key={r} style={{ color: paint.breaks }}>
              {r.charAt(0).toUpperCase() + r.slice(1)}.
            </p>
          ))}
        </div>
        <Button size="sm" variant="ghost" onClick={() => onChoose(p.id)} aria-label={`Details of ${shot.name}`}>
          Details
        </Button>
      </div>
    );
  },
  (a, b) =>
    a.zone === b.zone &&
    a.camera === b.camera &&
    a.shot.name === b.shot.name &&
    (a.plan === b.plan || JSON.stringify(a.plan) === JSON.stringify(b.plan)),
);
