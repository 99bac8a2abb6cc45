import { Box, Button, Link as ChakraLink, Flex, Heading, Stack, Text } from "@chakra-ui/react";
import { useCallback, useRef } from "react";
import { Link } from "react-router";
import { useHandedOver } from "../../lib/handOver";
import { useHotkeys } from "../../lib/useHotkeys";
import { LineAnswer } from "../../line/LineAnswer";
import { LineInput } from "../../line/LineInput";
import { useEdited } from "../../line/useEdited";
import { useKeep, useLine, withLight } from "../../line/useLine";

const EXAMPLES = [
  "f2.8 1/1600 iso100 > 30 fps",
  "drone · sunny, sun behind me > 25 fps",
  "helmet, auto 1/2000 > 30 · 4 8 16 32",
];
const SKIES = ["clear sky", "hazy sun", "clouds with gaps", "overcast", "heavy cloud"];

/** The first page of an empty application: one line, and a true answer to it. */
export function FirstAnswer() {
  const input = useRef<HTMLInputElement>(null);
  const { line, setLine, replace, edit } = useEdited(input);
  const { answer, error, isCurrent } = useLine(line);
  const keep = useKeep(() => setLine(""));
  useHandedOver("line", async (file) => setLine((await file.text()).trim()));
  useHotkeys(
    useCallback((key) => {
      if (key !== "/") return false;
      input.current?.focus();
      return true;
    }, []),
  );
  // A hand that is faster than the answer is not made to wait: the server answers what it keeps.
  const canKeep = line.trim() !== "" && !(isCurrent && answer?.needStops === undefined) && !keep.isPending;
  return (
    <Stack gap="4" py={{ base: "2", md: "6" }} maxW="72ch">
      <Heading as="h1" size="2xl">
        Which filter, in this light?
      </Heading>
      <LineInput
        ref={input}
        aria-label="The shot in one line: the light, the look, what moves, the filters"
        placeholder={EXAMPLES[0]}
        isLarge
        line={line}
        onLine={setLine}
        onKeep={() => canKeep && keep.mutate(line)}
      />
      <Flex gap="2" wrap="wrap" role="group" aria-label="Sky">
        {SKIES.map((sky) => (
          <Button
            key={sky}
            variant="outline"
            borderColor="lamp"
            color="lampInk"
            onClick={() => setLine(withLight(line, isCurrent && answer ? answer.parts : [], sky))}
          >
            {sky}
          </Button>
        ))}
      </Flex>
      <Box
        bg="panel"
        borderWidth="1px"
        borderColor={answer ? "accent" : "edge"}
        rounded="xl"
        p="4"
        aria-live="polite"
        data-testid="first-answer"
      >
        {error && <Text color="breaks">{error.message}</Text>}
        {!error && answer && <LineAnswer answer={answer} onReplace={replace} onEdit={edit} />}
        {!error && !answer && (
          <Stack gap="2" align="flex-start">
            <Text>
              Write what the camera or a meter says, then &gt; and the frame rate. Or tap the sky, or one of these:
            </Text>
            {EXAMPLES.map((example) => (
              <Button
                key={example}
                variant="ghost"
                px="2"
                whiteSpace="normal"
                textAlign="start"
                h="auto"
                onClick={() => setLine(example)}
              >
                {example}
              </Button>
            ))}
          </Stack>
        )}
        {answer?.needStops !== undefined && (
          <Flex mt="3" gap="3" align="center" wrap="wrap">
            <Button size="lg" disabled={!canKeep} loading={keep.isPending} onClick={() => keep.mutate(line)}>
              Keep this
            </Button>
            <Text color="muted">
              {answer.isAtHand
                ? "The camera, the shot, and the filters that the line names."
                : "The camera and the shot. Add the filters you have to the line: 4 8 16 32/PL CPL."}
            </Text>
          </Flex>
        )}
      </Box>
      <Text color="muted">
        Or{" "}
        <ChakraLink asChild color="accent">
          <Link to="/kit">add your camera</Link>
        </ChakraLink>{" "}
        by its data sheet.
      </Text>
    </Stack>
  );
}
