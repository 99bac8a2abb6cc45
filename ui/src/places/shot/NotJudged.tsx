import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import { ACTIVITIES } from "../../lib/activities";
import { SelectField } from "../../lib/SelectField";
import { CameraQuestion } from "../kit/CameraForm";
import { SPECS } from "../kit/cameraFields";
import type { Answer, Bench, Scene } from "./draft";

interface NotJudgedProps {
  missing: NonNullable<Answer["missing"]>;
  bench: Bench;
  onActivity: (activity: Scene["activity"]) => void;
}

/** What is not known and so not judged, each with the one question that would settle it, asked here. */
export function NotJudged({ missing, bench, onActivity }: NotJudgedProps) {
  const [asked, setAsked] = useState<string>();
  return (
    <Stack gap="1" data-testid="not-judged">
      {missing.map(({ words, field }, i) => (
        <Box key={words} fontSize="sm">
          <Flex gap="2" align="center" wrap="wrap" color="unknown">
            <Text flex="1" minW="200px">
              {i === 0 && <b>Not judged: </b>}
              {words}.
            </Text>
            {field && asked !== field && (
              <Button size="sm" minH="44px" variant="outline" onClick={() => setAsked(field)}>
                Say {questionOf(field)}
              </Button>
            )}
          </Flex>
          {field === ACTIVITY && asked === field && (
            <SelectField
              label="Activity"
              maxW="260px"
              value=""
              options={[
                { value: "", name: "not said" },
                ...Object.entries(ACTIVITIES).map(([value, name]) => ({ value, name })),
              ]}
              onChange={(activity) => onActivity(activity as Scene["activity"])}
            />
          )}
          {field && field !== ACTIVITY && asked === field && (
            <CameraQuestion camera={bench.camera} path={field} onDone={() => setAsked(undefined)} />
          )}
        </Box>
      ))}
    </Stack>
  );
}

const ACTIVITY = "scene.activity";

/** A field as it is asked for: "field of view". */
function questionOf(field: string): string {
  if (field === ACTIVITY) return "what carries it";
  const label = SPECS.find((s) => s.path === field)?.label ?? field;
  return label.charAt(0).toLowerCase() + label.slice(1).replace(/,.*/, "");
}
