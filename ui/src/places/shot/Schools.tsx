import { Button, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { angle } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { StateShape } from "../../lib/StateMark";

type Line = Schemas["SchoolLine"];

interface SchoolsProps {
  lines: readonly Line[];
  glassOf: (ids: readonly string[]) => string;
  onTake: (line: Line) => void;
}

/** What each school would do with this shot, in numbers; choosing one takes it. */
export function Schools({ lines, glassOf, onTake }: SchoolsProps) {
  return (
    <Stack gap="1" data-testid="schools">
      {lines.map((line) => (
        <Button
          key={line.school}
          variant="outline"
          aria-pressed={line.isTaken}
          h="auto"
          py="1.5"
          px="3"
          bg={line.isTaken ? "accentSoft" : "panel"}
          color="ink"
          borderColor={line.isTaken ? "accent" : "edge"}
          borderWidth={line.isTaken ? "2px" : "1px"}
          fontWeight="normal"
          whiteSpace="normal"
          textAlign="start"
          onClick={() => onTake(line)}
        >
          <Grid
            w="full"
            columnGap="3"
            templateColumns={{ base: "1fr auto", md: "130px 130px minmax(0,1fr) auto" }}
            alignItems="center"
          >
            <Text fontWeight="bold">{line.name}</Text>
            <Text>
              {line.text}
              {line.angleDeg != null && ` · ${angle(line.angleDeg)}`}
            </Text>
            <Text>
              {glassOf(line.filters)} · {line.isoText}
            </Text>
            <Flex gap="1.5" align="center" color={line.state} justifySelf={{ md: "end" }}>
              {line.blurPx !== undefined && (
                <Text color="muted">{decimal(line.blurPx, line.blurPx < 10 ? 1 : 0)} px</Text>
              )}
              <StateShape state={line.state} />
              <Text fontWeight="bold">{line.state}</Text>
            </Flex>
            {line.gives && (
              <Text gridColumn="1 / -1" fontSize="sm" color="muted">
                {line.gives}
              </Text>
            )}
          </Grid>
        </Button>
      ))}
    </Stack>
  );
}
