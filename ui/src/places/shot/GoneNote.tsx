import { Button, Flex, Text } from "@chakra-ui/react";
import { StateShape } from "../../lib/StateMark";

interface GoneNoteProps {
  names: string;
  /** When the answer below was given. */
  at: string;
  onDrop: () => void;
}

/** Says that a shot names glass which is no longer there; its old answer stays until its owner goes on. */
export function GoneNote({ names, at, onDrop }: GoneNoteProps) {
  return (
    <Flex bg="unknownSoft" color="unknown" rounded="md" p="3" mb="3" gap="3" align="center" wrap="wrap" role="status">
      <StateShape state="unknown" />
      <Text flex="1" minW="240px">
        {names} cannot be put on this camera now: it is deleted, lost, or does not go. Below is the answer of{" "}
        {at.slice(0, 10)}.
      </Text>
      <Button variant="outline" onClick={onDrop}>
        Go on without it
      </Button>
    </Flex>
  );
}
