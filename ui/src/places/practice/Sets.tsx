import { Box, Button, Flex, Text, Wrap } from "@chakra-ui/react";
import { Choice } from "../../lib/Choice";
import { FileButton } from "../../lib/FileButton";
import { Panel } from "../../lib/Panel";
import { PressButton } from "../../lib/PressButton";
import { readText } from "../../lib/readText";
import { saveBlob } from "../../lib/saveBlob";
import { toaster } from "../../shell/toaster";
import { ALL, KINDS, type Kind } from "./kinds";
import { EVERYTHING, keepSet, type PracticeSet, readSet } from "./sets";

const GRADES = [
  { value: "", name: "As it fits" },
  { value: "1", name: "1" },
  { value: "2", name: "2" },
  { value: "3", name: "3" },
];

/** The grade that all kinds of a set have, "" for as it fits, undefined where they differ. */
function gradeOf({ kinds }: PracticeSet): string | undefined {
  const [first, ...others] = new Set(kinds.map((k) => String(k.grade ?? "")));
  return others.length === 0 ? first : undefined;
}

const withGrade = (set: PracticeSet, grade: number | undefined): PracticeSet => ({
  ...set,
  name: "My choice",
  kinds: set.kinds.map(({ kind }) => ({ kind, ...(grade && { grade }) })),
});

/** What is practised: kinds that are chosen here, or a set that somebody shared. */
export function Sets({ set, onSet }: { set: PracticeSet; onSet: (set: PracticeSet) => void }) {
  const chosen = new Set(set.kinds.map((k) => k.kind));
  const take = (next: PracticeSet) => {
    keepSet(next);
    onSet(next);
  };
  const toggle = (kind: Kind) => {
    const kinds = chosen.has(kind) ? set.kinds.filter((k) => k.kind !== kind) : [...set.kinds, { kind }];
    if (kinds.length > 0) take({ ...set, name: "My choice", kinds });
  };
  const open = async (file: File) => {
    try {
      take(readSet(await readText(file)));
      toaster.create({ title: "Set opened" });
    } catch (cause) {
      toaster.create({ title: "Not a set of questions", description: (cause as Error).message });
    }
  };
  return (
    <Panel heading="What is asked" note={set.name}>
      <Wrap gap="1.5" role="group" aria-label="Kinds of question">
        {ALL.map((kind) => (
          <PressButton key={kind} isOn={chosen.has(kind)} onClick={() => toggle(kind)}>
            {KINDS[kind]}
          </PressButton>
        ))}
      </Wrap>
      <Box mt="3">
        <Choice
          label="How hard"
          options={GRADES}
          value={gradeOf(set)}
          onChange={(grade) => take(withGrade(set, grade === "" ? undefined : Number(grade)))}
        />
      </Box>
      <Flex gap="2" mt="3" wrap="wrap" align="center">
        <Button variant="outline" onClick={() => take(EVERYTHING)}>
          Everything
        </Button>
        <Button
          variant="outline"
          onClick={() => saveBlob(new Blob([JSON.stringify(set, null, 1)]), "pinhole-practice-set.json")}
        >
          Share this set
        </Button>
        <FileButton variant="outline" label="Set of questions" accept=".json,application/json" onFile={open}>
          Open a set
        </FileButton>
        <Text color="muted" fontSize="sm">
          A set is a JSON file of kinds, each with a grade from 1 to 3 where that is fixed.
        </Text>
      </Flex>
    </Panel>
  );
}
