import { Box, Button, Flex, InputGroup, Kbd, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { useLocation, useMatch } from "react-router";
import { camerasQuery, shotQuery } from "../api/queries";
import { useHandedOver } from "../lib/handOver";
import { useHotkeys } from "../lib/useHotkeys";
import { LineAnswer } from "../line/LineAnswer";
import { LineInput } from "../line/LineInput";
import { useEdited } from "../line/useEdited";
import { useKeep, useLine } from "../line/useLine";

/**
 * One line that asks a whole shot, wherever one is: f2 1/1250 iso50 > 50 fps. The answer
 * stands under it while it is typed, on the camera of the open shot or the one that was
 * worked on last; Enter makes it a shot.
 */
export function QuickLine() {
  const [isOpen, setOpen] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const { line, setLine, replace, edit } = useEdited(input);
  const id = useMatch("/shot/:id")?.params.id ?? "";
  const { data: shot } = useQuery({ ...shotQuery(id), enabled: id !== "" });
  const { answer, error, isCurrent } = useLine(line, shot?.cameraId);
  const keep = useKeep(() => {
    setLine("");
    setOpen(false);
    input.current?.blur();
  }, shot?.cameraId);
  useHotkeys(
    useCallback((key) => {
      if (key !== "/") return false;
      input.current?.focus();
      return true;
    }, []),
  );
  const { data: cameras } = useQuery(camerasQuery);
  const { pathname } = useLocation();
  // The first page is a line itself.
  const isAside = cameras?.length === 0 && pathname === "/shoot";
  useHandedOver(isAside ? undefined : "line", async (file) => {
    setLine((await file.text()).trim());
    input.current?.focus();
  });
  if (isAside) return <Box flex="1" />;
  // A hand that is faster than the answer is not made to wait: the server answers what it keeps.
  const canKeep = line.trim() !== "" && !(isCurrent && answer?.needStops === undefined) && !keep.isPending;
  return (
    <Box
      position="relative"
      flex="1"
      maxW="560px"
      onBlur={(e) => e.currentTarget.contains(e.relatedTarget) || setOpen(false)}
    >
      <InputGroup startElement={<Kbd aria-hidden>/</Kbd>}>
        <LineInput
          ref={input}
          aria-label="Quick line: the light, the look, what moves, the filters"
          aria-describedby="quick-answer"
          placeholder="f2 1/1250 iso50 > 50 fps"
          h="44px"
          line={line}
          onLine={(text) => {
            setLine(text);
            setOpen(true);
          }}
          onFocus={() => setOpen(true)}
          onKeyDown={(e) => e.key === "Escape" && e.currentTarget.blur()}
          onKeep={() => canKeep && keep.mutate(line)}
        />
      </InputGroup>
      <Box
        id="quick-answer"
        hidden={!isOpen || line.trim() === ""}
        position="absolute"
        top="48px"
        insetX="0"
        minW={{ base: "calc(100vw - 24px)", md: "auto" }}
        maxH="calc(100dvh - 130px)"
        overflowY="auto"
        bg="panel"
        borderWidth="1px"
        borderColor="accent"
        rounded="lg"
        shadow="lg"
        p="3"
        zIndex="15"
        aria-live="polite"
        data-testid="quick-answer"
      >
        {error && <Text color="muted">{error.message}</Text>}
        {!error && answer && (
          <>
            <LineAnswer answer={answer} onReplace={replace} onEdit={edit} />
            {answer.needStops !== undefined && (
              <Flex mt="2" gap="2" align="center">
                <Button size="sm" disabled={!canKeep} onClick={() => keep.mutate(line)}>
                  Make it a shot
                </Button>
                <Text color="muted" fontSize="sm" hideBelow="md">
                  or press <Kbd>Enter</Kbd>
                </Text>
              </Flex>
            )}
          </>
        )}
      </Box>
    </Box>
  );
}
