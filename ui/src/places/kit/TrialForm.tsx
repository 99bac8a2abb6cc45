import { Button, Flex, Heading, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Problem, unwrap } from "../../api/client";
import type { Schemas } from "../../api/schemas";
import { Choice } from "../../lib/Choice";
import { DateField } from "../../lib/DateField";
import { NumberField } from "../../lib/NumberField";
import { TextField } from "../../lib/TextField";
import { amountOf } from "../../lib/units";
import { useDelete } from "../../lib/useDelete";

type Found = Schemas["StoredFound"];
type Question = "wobbles" | "folds" | "selfTest" | "darkCorners" | "marksLeft";

const QUESTIONS: Record<Question, string> = {
  wobbles: "Wobbles when shaken",
  folds: "Folds away with it on",
  selfTest: "Gimbal passes its self-test",
  darkCorners: "Vignetting at the widest",
  marksLeft: "Left marks",
};

const ANSWERS = [
  { value: "yes", name: "Yes" },
  { value: "no", name: "No" },
  { value: "open", name: "Not looked at" },
] as const;

interface TrialFormProps {
  seat: Schemas["Seat"];
  onKept: () => void;
}

/** The sheet for trying one filter on one rig, and the trials so far. */
export function TrialForm({ seat, onKept }: TrialFormProps) {
  const queries = useQueryClient();
  const [found, setFound] = useState<Found>({ seated: true });
  const [on, setOn] = useState(today);
  const set = (part: Partial<Found>) =>
    setFound((now) => {
      const next = Object.entries({ ...now, ...part }).filter(([, v]) => v !== undefined && v !== "");
      return Object.fromEntries(next) as unknown as Found;
    });
  const refresh = () => queries.invalidateQueries({ queryKey: ["bench"] });
  const save = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/trials", {
          body: { rigId: seat.rigId, filterId: seat.filterId, triedAt: instantOf(on), found },
        }),
      ),
    onSuccess: () => {
      refresh();
      onKept();
    },
  });
  const fault = (field: string) =>
    save.error instanceof Problem ? save.error.faults.find((f) => f.field === `found.${field}`)?.allowed : undefined;
  return (
    <Stack gap="3" as="section" aria-label="A fit test">
      <Heading as="h3" size="sm" color="muted">
        Test it by hand
      </Heading>
      <Text color="muted">
        Power off or disarm before mounting, hold the gimbal gently, and never test it while moving.
      </Text>
      <Choice
        label="Seats straight and all the way"
        options={ANSWERS.slice(0, 2)}
        value={found.seated ? "yes" : "no"}
        onChange={(v) => set({ seated: v === "yes" })}
      />
      <Flex gap="4" wrap="wrap">
        {(Object.keys(QUESTIONS) as Question[]).map((key) => (
          <Choice
            key={key}
            label={QUESTIONS[key]}
            options={ANSWERS}
            value={found[key] === undefined ? "open" : found[key] ? "yes" : "no"}
            onChange={(v) => set({ [key]: v === "open" ? undefined : v === "yes" })}
          />
        ))}
      </Flex>
      <Flex gap="3" wrap="wrap">
        <NumberField
          label="Pull-off"
          quantity="mass"
          value={found.pullOffG}
          fault={fault("pullOffG")}
          onChange={(pullOffG) => set({ pullOffG })}
        />
        <NumberField
          label="Tilts up to, °"
          value={found.tiltUpDeg}
          fault={fault("tiltUpDeg")}
          onChange={(tiltUpDeg) => set({ tiltUpDeg })}
        />
        <NumberField
          label="Tilts down to, °"
          w="140px"
          value={found.tiltDownDeg}
          fault={fault("tiltDownDeg")}
          onChange={(tiltDownDeg) => set({ tiltDownDeg })}
        />
      </Flex>
      <DateField label="Tested on" w="180px" value={on} max={today()} onChange={setOn} />
      <TextField label="Note" value={found.note ?? ""} fault={fault("note")} onChange={(note) => set({ note })} />
      {save.error && (
        <Text role="alert" color="breaks">
          {save.error.message}
        </Text>
      )}
      <Button alignSelf="flex-start" loading={save.isPending} onClick={() => save.mutate()}>
        Save this test
      </Button>
      {seat.trials.map((t) => (
        <PastTrial key={t.id} trial={t} onGone={refresh} />
      ))}
    </Stack>
  );
}

/** This day on this device, as a date field writes it. */
const today = (): string => new Date().toLocaleDateString("sv-SE");

/** Now, for a trial of today; the evening of an earlier day. */
const instantOf = (day: string): string =>
  (day === today() || day === "" ? new Date() : new Date(`${day}T18:00:00`)).toISOString();

function PastTrial({ trial, onGone }: { trial: Schemas["StoredTrial"]; onGone: () => void }) {
  const remove = useDelete({
    what: "The test",
    queryKey: ["bench"],
    remove: async () => {
      const gone = await unwrap(
        api.DELETE("/api/trials/{id}", { params: { path: { id: trial.id }, query: { version: trial.version } } }),
      );
      onGone();
      return gone;
    },
    restore: (version) =>
      unwrap(api.POST("/api/trials/{id}/restore", { params: { path: { id: trial.id }, query: { version } } })),
  });
  return (
    <Flex gap="3" align="center" borderTopWidth="1px" borderColor="edge" pt="2">
      <Text flex="1">
        {trial.triedAt.slice(0, 10)}: {foundWords(trial.found)}
      </Text>
      <Button size="sm" variant="ghost" onClick={() => remove.mutate()}>
        Delete
      </Button>
    </Flex>
  );
}

function foundWords(found: Found): string {
  const { seated, pullOffG, tiltUpDeg, tiltDownDeg, note } = found;
  const asked = (Object.keys(QUESTIONS) as Question[])
    .filter((key) => found[key] !== undefined)
    .map((key) => `${QUESTIONS[key].toLowerCase()}: ${found[key] ? "yes" : "no"}`);
  return [
    seated ? "seats" : "does not seat",
    ...asked,
    ...(pullOffG === undefined ? [] : [`pull-off ${amountOf("mass", pullOffG, 3)}`]),
    ...(tiltUpDeg === undefined ? [] : [`tilts up to ${tiltUpDeg}°`]),
    ...(tiltDownDeg === undefined ? [] : [`down to ${tiltDownDeg}°`]),
    ...(note ? [note] : []),
  ].join(", ");
}
