import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { learnedQuery, shotsQuery, steppedQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { FileButton } from "../../lib/FileButton";
import { iso, signed } from "../../lib/format";
import { BARE, GONE, together } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { Panel } from "../../lib/Panel";
import { SelectField } from "../../lib/SelectField";
import { log, useWaiting } from "../../offline/fieldLog";
import { Columns } from "./Columns";
import { useTake } from "./useTake";

type Grade = Schemas["RecordStep"]["grade"];
type Why = NonNullable<Schemas["RecordStep"]["why"]>;

const GRADES: readonly { grade: Grade; why?: Why; name: string }[] = [
  { grade: "good", name: "Good" },
  { grade: "usable", name: "Usable" },
  { grade: "bad", why: "ghost", name: "Bad: it ghosts" },
  { grade: "bad", why: "noise", name: "Bad: noise" },
  { grade: "bad", why: "other", name: "Bad: something else" },
];
const NAMES = new Map(GRADES.map(({ grade, why, name }) => [`${grade} ${why ?? ""}`, name]));

/** From plan to limit: the steps, one after the other, each judged; the limit follows from all of them. */
export function SteppedView() {
  const [params, setParams] = useSearchParams();
  const { data: shots = [] } = useQuery(shotsQuery);
  const withLimit = shots.filter((s) => s.shootId && s.answer.request.profile?.stabiliser);
  const shot = shots.find((s) => s.id === params.get("shot"));
  const plan = useQuery(steppedQuery(shot?.answer.request ?? null));
  const trial = shot && plan.data;
  return (
    <Columns shares="3:2">
      <Panel heading="A shutter test" note="the same path at each shutter, each take judged">
        <Stack gap="3">
          <SelectField
            label="With the camera, light and movement of"
            maxW="320px"
            value={shot?.id ?? ""}
            options={[{ value: "", name: "choose a shot" }, ...withLimit.map((s) => ({ value: s.id, name: s.name }))]}
            onChange={(id) => setParams(id ? { shot: id } : {}, { replace: true })}
          />
          {!shot && (
            <Text color="muted">
              It finds the slowest shutter at which your stabiliser still works, for you, this camera and how you move.
            </Text>
          )}
          {plan.error && shot && <Text role="alert">Nothing to try here: {plan.error.message}</Text>}
          {trial && <Steps key={shot.id} shot={shot} plan={trial} />}
        </Stack>
      </Panel>
      {shot && trial && <Limit shot={shot} plan={trial} />}
    </Columns>
  );
}

interface TrialProps {
  shot: Schemas["StoredShot"];
  plan: Schemas["SteppedAnswer"];
}

function Steps({ shot, plan }: TrialProps) {
  const [graded, setGraded] = useState<readonly { grade: Grade; why?: Why | undefined }[]>([]);
  const step = plan.steps[graded.length];
  const glass = together(
    plan.filters.map((id) => shot.answer.glass?.[id] ?? GONE),
    BARE,
  );
  const judge = async (grade: Grade, why?: Why) => {
    if (!step || !shot.shootId) return;
    await log(shot.shootId, {
      kind: "step",
      at: new Date().toISOString(),
      shotId: shot.id,
      words: `${shot.name}: ${step.shutterText}, ${NAMES.get(`${grade} ${why ?? ""}`)?.toLowerCase()}`,
      tried: {
        mode: plan.mode,
        activity: plan.activity,
        measured: plan.measured,
        shakeDegS: plan.shakeDegS,
        computedS: plan.computedS,
        shutterS: step.shutterS,
        grade,
        ...(why && { why }),
        iso: step.iso,
        isoCeiling: plan.isoCeiling,
      },
    });
    setGraded([...graded, { grade, why }]);
  };
  return (
    <Stack gap="3" data-testid="steps">
      <Text>
        {plan.path} Put on {glass}, and leave it on.
      </Text>
      <Flex as="ol" gap="2" wrap="wrap" listStyleType="none" aria-label="Steps">
        {plan.steps.map((s, i) => {
          const was = graded[i];
          return (
            <Box
              as="li"
              key={s.shutterS}
              borderWidth={i === graded.length ? "2px" : "1px"}
              borderColor={i === graded.length ? "accent" : "edge"}
              rounded="md"
              px="2"
              py="1"
              aria-current={i === graded.length ? "step" : undefined}
            >
              <Text fontWeight="bold">{s.shutterText}</Text>
              <Text fontSize="sm" color="muted">
                {was ? NAMES.get(`${was.grade} ${was.why ?? ""}`) : iso(s.iso)}
              </Text>
            </Box>
          );
        })}
      </Flex>
      {step ? (
        <Step key={step.shutterS} shot={shot} step={step} onJudged={judge} />
      ) : (
        <Flex gap="3" align="center" wrap="wrap">
          <Text role="status">All steps are judged.</Text>
          <Button variant="outline" onClick={() => setGraded([])}>
            Once more
          </Button>
        </Flex>
      )}
    </Stack>
  );
}

interface StepProps {
  shot: Schemas["StoredShot"];
  step: Schemas["SteppedStep"];
  onJudged: (grade: Grade, why?: Why) => void;
}

/** One take: set, walk, judge; its clip says what can be measured of it. */
function Step({ shot, step, onJudged }: StepProps) {
  const [file, setFile] = useState<File>();
  const take = useTake({ file, shot, fromS: 0, forS: 4 });
  const ghost = take.data?.ghost;
  return (
    <Stack gap="3">
      <Text fontSize="4xl" fontWeight="bold" lineHeight="1.1">
        {step.shutterText} {iso(step.iso)}
      </Text>
      {step.isFar && (
        <Text color="tight">
          {signed(step.offStops)} stops: {step.offStops > 0 ? "too bright" : "too dark"} for this camera here. Judge the
          ghosting alone, or leave it out.
        </Text>
      )}
      <Flex gap="2" wrap="wrap">
        {GRADES.map(({ grade, why, name }) => (
          <Button
            key={name}
            minH="48px"
            variant={grade === "bad" ? "outline" : "solid"}
            onClick={() => onJudged(grade, why)}
          >
            {name}
          </Button>
        ))}
      </Flex>
      <Flex gap="3" align="center" wrap="wrap">
        <FileButton
          variant="outline"
          label="The clip of this step"
          accept="video/*,.mp4,.mov,.webm,.y4m"
          onFile={setFile}
        >
          Measure its clip
        </FileButton>
        {take.isPending && <Text role="status">Measuring</Text>}
        {take.error && <Text role="alert">{take.error.message}</Text>}
        {ghost && (
          <Text role="status">
            {ghost.stabilised
              ? `It ghosts: ${decimal(ghost.blurPx ?? 0, 1)} px of blur that no movement explains.`
              : ghost.blurPx == null
                ? "Whether it ghosts cannot be told from this clip."
                : "No ghosting is seen in it."}
          </Text>
        )}
      </Flex>
    </Stack>
  );
}

/** What all trials of this camera say, this one included. */
function Limit({ shot, plan }: TrialProps) {
  const queries = useQueryClient();
  const { data: learned } = useQuery(learnedQuery);
  const waiting = useWaiting().filter((w) => w.entry.kind === "step").length;
  // What was sent has become a record.
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is asked when less waits.
  useEffect(() => {
    void queries.invalidateQueries({ queryKey: ["records"] });
  }, [waiting, queries]);
  const found = learned?.stabilisers.find(
    (s) =>
      s.mode === plan.mode && s.activity === plan.activity && (s.rigId === shot.rigId || !shot.rigId || s.trials > 0),
  );
  return (
    <Panel heading="The limit" note={waiting > 0 ? `${waiting} wait to be sent` : undefined}>
      <Stack gap="1" data-testid="limit">
        <Text>Computed, before any test: {shutterText(plan.computedS)}</Text>
        {found?.floorS != null && (
          <>
            <Text fontSize="2xl" fontWeight="bold">
              {shutterText(found.floorS)}
            </Text>
            <Text color="muted">
              between {shutterText(found.highS ?? 0)} and {shutterText(found.lowS ?? 0)} nine times in ten, by{" "}
              {found.trials} takes. Shots on this camera are judged by it.
            </Text>
          </>
        )}
      </Stack>
    </Panel>
  );
}
