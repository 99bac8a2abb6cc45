import { Button, Flex, Text } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { StateShape } from "../../lib/StateMark";

interface CameraTabsProps {
  cameras: Schemas["CardCamera"][];
  chosen: string;
  onChoose: (id: string) => void;
}

/** The cameras of the day, each with the state of its turn; one is looked at. */
export function CameraTabs({ cameras, chosen, onChoose }: CameraTabsProps) {
  const shown = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is another button that is chosen then.
  useEffect(() => {
    // Some browsers return a promise here, which an effect must not.
    void shown.current?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [chosen]);
  return (
    <Flex
      as="section"
      aria-label="Cameras"
      gap="2"
      overflowX="auto"
      py="1"
      mx={{ base: "-3", md: "0" }}
      px={{ base: "3", md: "0" }}
    >
      {cameras.map((c) => {
        const turn = c.turns[c.current];
        const isChosen = c.cameraId === chosen;
        return (
          <Button
            key={c.cameraId}
            ref={isChosen ? shown : undefined}
            flexShrink={0}
            h="52px"
            px="3"
            variant="outline"
            aria-pressed={isChosen}
            bg={isChosen ? "accent" : "panel"}
            color={isChosen ? "onAccent" : "ink"}
            borderColor={isChosen ? "accent" : "edge"}
            onClick={() => onChoose(c.cameraId)}
          >
            {turn && <StateShape state={turn.state} />}
            <Text as="span" fontSize="md">
              {shortName(c.name)}
              {turn?.when === "on" && " · on"}
            </Text>
          </Button>
        );
      })}
    </Flex>
  );
}

/** A camera's name without what stands in brackets. */
export const shortName = (name: string): string => name.replace(/\s*\(.*\)\s*$/, "");
