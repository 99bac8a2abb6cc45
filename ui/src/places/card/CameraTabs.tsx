import { Flex, IconButton, Text } from "@chakra-ui/react";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { useEffect, useRef } from "react";
import type { Schemas } from "../../api/schemas";
import { PressButton } from "../../lib/PressButton";
import { StateShape } from "../../lib/StateMark";

interface CameraTabsProps {
  cameras: Schemas["CardCamera"][];
  chosen: string;
  onChoose: (id: string) => void;
  /** Go to the turn before and after the one that is shown; left out where there is none. */
  before: (() => void) | undefined;
  after: (() => void) | undefined;
}

/** The cameras of the day, each with the state of its turn, and the way through the turns of one. */
export function CameraTabs({ cameras, chosen, onChoose, before, after }: CameraTabsProps) {
  const shown = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is another button that is chosen then.
  useEffect(() => {
    // Some browsers return a promise here, which an effect must not.
    void shown.current?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [chosen]);
  return (
    <Flex gap="1" align="center">
      <Step label="The take before" icon={<ChevronLeft />} onStep={before} />
      <Flex as="section" aria-label="Cameras" gap="1" flex="1" minW="0" overflowX="auto" py="1" px="1">
        {cameras.map((c) => {
          const turn = c.turns[c.current];
          const isChosen = c.cameraId === chosen;
          return (
            <PressButton
              key={c.cameraId}
              isOn={isChosen}
              ref={isChosen ? shown : undefined}
              size="tall"
              onClick={() => onChoose(c.cameraId)}
            >
              {turn && <StateShape state={turn.state} />}
              <Text as="span" fontSize="md">
                {shortName(c.name)}
                {turn?.when === "on" && " · on"}
              </Text>
            </PressButton>
          );
        })}
      </Flex>
      <Step label="The take after" icon={<ChevronRight />} onStep={after} />
    </Flex>
  );
}

function Step({ label, icon, onStep }: { label: string; icon: React.ReactNode; onStep: (() => void) | undefined }) {
  return (
    <IconButton aria-label={label} variant="outline" minW="48px" h="52px" disabled={!onStep} onClick={onStep}>
      {icon}
    </IconButton>
  );
}

/** A camera's name without what stands in brackets. */
export const shortName = (name: string): string => name.replace(/\s*\(.*\)\s*$/, "");
