import { Heading, List, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { seatQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { ClearanceDrawing } from "../../instruments/clearance/ClearanceDrawing";
import { CornersDrawing } from "../../instruments/corners/CornersDrawing";
import { decimal } from "../../lib/locale";
import { SelectField } from "../../lib/SelectField";
import { Sheet } from "../../lib/Sheet";
import { StandingMark } from "../../lib/Standing";
import { StateMark } from "../../lib/StateMark";
import { amountOf } from "../../lib/units";
import { TrialForm } from "./TrialForm";

type Seat = Schemas["Seat"];

interface SeatSheetProps {
  rig: Schemas["StoredRig"];
  filter: Schemas["ShownFilter"];
  title: string;
  /** What may be stacked on the filter. */
  others: readonly Schemas["ShownFilter"][];
  onClose: () => void;
}

/** What can be done on the spot about a ring that may come off, each with what to mind. */
function AdviceList({ advice }: { advice: readonly Schemas["Advice"][] }) {
  return (
    <List.Root gap="1" ps="4" data-testid="advice">
      {advice.map((a) => (
        <List.Item key={a.do}>
          <b>
            {a.do}
            {a.isNamed && " (not advised)"}
          </b>
          : {a.caution}
        </List.Item>
      ))}
    </List.Root>
  );
}

/** All that is known of a filter on a rig: evidence and computation, and the sheet for a new trial. */
export function SeatSheet({ rig, filter, title, others, onClose }: SeatSheetProps) {
  const [onTop, setOnTop] = useState("");
  const { data: single, error } = useQuery(seatQuery(rig.id, [filter.id]));
  const { data: stacked } = useQuery(seatQuery(rig.id, onTop ? [filter.id, onTop] : [filter.id]));
  return (
    <Sheet title={title} isOpen onOpen={(isOpen) => isOpen || onClose()} size="xl">
      {error && <StateMark state="unknown">{error.message}</StateMark>}
      {!single && !error && <Skeleton h="200px" />}
      {single && (
        <Stack gap="4">
          <Evidence seat={single} />
          <Part heading="Clearance">
            {single.answer.fit &&
              single.asked.rig.barrelMm &&
              single.asked.glass[0]?.seatMm &&
              single.answer.fit.class && (
                <ClearanceDrawing
                  fit={single.answer.fit}
                  barrelMm={single.asked.rig.barrelMm}
                  seatMm={single.asked.glass[0].seatMm}
                />
              )}
            {single.reference && (
              <Text color="muted">Counted from {single.reference}, which is known to hold well.</Text>
            )}
            {single.answer.advice && <AdviceList advice={single.answer.advice} />}
          </Part>
          {single.answer.hold && (
            <Part heading="Hold">
              <Hold hold={single.answer.hold} rig={rig} />
            </Part>
          )}
          {single.answer.corners && (
            <Part heading="Vignetting">
              <SelectField
                label="With another filter on it"
                maxW="320px"
                value={onTop}
                options={[
                  { value: "", name: "alone" },
                  ...others.map((f) => ({ value: f.id, name: `${f.title} ${f.slot ?? ""}`.trim() })),
                ]}
                onChange={setOnTop}
              />
              {stacked?.answer.corners ? (
                <CornersDrawing corners={stacked.answer.corners} outerMm={stacked.asked.glass.map((g) => g.outerMm)} />
              ) : (
                <StateMark state="unknown">measure that filter's clear diameter and thickness first</StateMark>
              )}
            </Part>
          )}
          {single.answer.balance && (
            <Part heading="Balance">
              <Text>
                {amountOf("mass", single.answer.balance.counterG)} at the counterweight's place balances it. Power the
                gimbal on only once it holds level by itself.
              </Text>
            </Part>
          )}
          {stacked?.answer.mass && (
            <Part heading="All-up mass">
              <StateMark state={stacked.answer.mass.within ? "holds" : "breaks"}>
                {stacked.answer.mass.words}.
              </StateMark>
            </Part>
          )}
          <TrialForm seat={single} onKept={onClose} />
        </Stack>
      )}
    </Sheet>
  );
}

function Part({ heading, children }: { heading: string; children: React.ReactNode }) {
  const shown = Array.isArray(children) ? children.some(Boolean) : Boolean(children);
  if (!shown) return null;
  return (
    <Stack gap="2" as="section" aria-label={heading}>
      <Heading as="h3" size="sm" color="muted">
        {heading}
      </Heading>
      {children}
    </Stack>
  );
}

function Evidence({ seat }: { seat: Seat }) {
  const [decides, ...rest] = seat.because;
  const { open } = seat.answer;
  return (
    <Stack gap="2">
      <StandingMark standing={seat.standing}>{decides}</StandingMark>
      {(rest.length > 0 || open.length > 0) && (
        <List.Root gap="0.5" ps="4" data-testid="evidence">
          {rest.map((words) => (
            <List.Item key={words} _marker={{ color: "muted" }}>
              {words}
            </List.Item>
          ))}
          {open.map((words) => (
            <List.Item key={words} _marker={{ color: "muted" }} color="muted">
              not known: {words}
            </List.Item>
          ))}
        </List.Root>
      )}
    </Stack>
  );
}

const HOLDS = { holds: "holds", tether: "tight", "do-not-fly": "breaks", unknown: "unknown" } as const;

function Hold({ hold, rig }: { hold: Schemas["HoldAnswer"]; rig: Schemas["StoredRig"] }) {
  const { accelG, speedMps } = rig.measures;
  return (
    <Stack gap="1">
      <StateMark state={HOLDS[hold.verdict]}>{hold.advice}.</StateMark>
      <Text>
        {decimal(hold.loadN, 2)} N pull at it at {accelG} g and {amountOf("speed", speedMps ?? 0)},{" "}
        {decimal(hold.dragN, 2)} N of that the wind.
        {hold.margin === undefined
          ? " Its pull-off is not measured."
          : ` Its hold is ${decimal(hold.margin, 1)} times that: 3 and more holds, under 3 asks for a tether or tape, under 1.5 do not fly.`}
      </Text>
    </Stack>
  );
}
