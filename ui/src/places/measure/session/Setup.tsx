import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { filtersQuery, rigsQuery } from "../../../api/queries";
import { Panel } from "../../../lib/Panel";
import { SelectField } from "../../../lib/SelectField";
import { TickBox } from "../../../lib/TickBox";
import { useRigNames } from "../KeepWith";
import { type Comparison, stepsOf, type Target } from "./steps";
import { TARGETS } from "./targets";

/** What is compared, before the first frame. */
export function Setup({ onStart }: { onStart: (comparison: Comparison) => void }) {
  const rigs = useRigNames();
  const { data: rigData = [] } = useQuery(rigsQuery);
  const { data: filters = [] } = useQuery(filtersQuery);
  const [chosen, setChosen] = useState("");
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [also, setAlso] = useState<readonly Target[]>(["edge", "lamp"]);
  const rigId = chosen || (rigs[0]?.value ?? "");
  const cameraId = rigData.find((r) => r.id === rigId)?.cameraId ?? "";
  // What its owner says goes on, in the order of the case; a variable filter is measured mark by mark.
  const offered = filters
    .filter((f) => f.cameras.includes(cameraId) && f.reads.kind !== "variable")
    .toSorted((a, b) => (a.slot ?? "~").localeCompare(b.slot ?? "~", undefined, { numeric: true }));
  const filterIds = offered.filter((f) => !left.has(f.id)).map((f) => f.id);
  const targets: Target[] = ["wall", ...(["edge", "lamp"] as const).filter((t) => also.includes(t))];
  const frames = stepsOf({ rigId, filterIds, targets }).length;
  if (rigs.length === 0) return <Text color="muted">Add a camera and its filters in Kit: they are compared here.</Text>;
  return (
    <Panel heading="Compare a case of filters" note="one target, one light, the camera left standing">
      <Stack gap="4">
        <SelectField label="On" maxW="360px" value={rigId} options={rigs} onChange={setChosen} />
        <Stack as="fieldset" gap="1">
          <Text as="legend" color="muted" fontSize="sm">
            Filters
          </Text>
          {offered.length === 0 && <Text>No filter is listed as fitting this camera.</Text>}
          <Flex gap="2" wrap="wrap">
            {offered.map((f) => (
              <TickBox key={f.id} isOn={!left.has(f.id)} onChange={(isOn) => setLeft(toggled(left, f.id, !isOn))}>
                {[f.title, f.slot].filter(Boolean).join(" · ")}
              </TickBox>
            ))}
          </Flex>
        </Stack>
        <Stack as="fieldset" gap="1">
          <Text as="legend" color="muted" fontSize="sm">
            Strength, colour and vignetting always; and
          </Text>
          <Flex gap="2" wrap="wrap">
            {(["edge", "lamp"] as const).map((t) => (
              <TickBox
                key={t}
                isOn={also.includes(t)}
                onChange={(isOn) => setAlso(isOn ? [...also, t] : also.filter((other) => other !== t))}
              >
                {TARGETS[t].measures}
              </TickBox>
            ))}
          </Flex>
        </Stack>
        <Flex gap="3" align="center" wrap="wrap">
          <Button minH="44px" disabled={filterIds.length === 0} onClick={() => onStart({ rigId, filterIds, targets })}>
            Start
          </Button>
          <Text color="muted">{frames} frames. It can be left at any time and goes on where it was.</Text>
        </Flex>
      </Stack>
    </Panel>
  );
}

function toggled(set: ReadonlySet<string>, id: string, isIn: boolean): ReadonlySet<string> {
  const next = new Set(set);
  if (isIn) next.add(id);
  else next.delete(id);
  return next;
}
