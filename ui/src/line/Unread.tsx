import { Box, Button, Flex, Text } from "@chakra-ui/react";
import type { Schemas } from "../api/client";

interface UnreadProps {
  unread: Schemas["AskAnswer"]["unread"][number];
  /** Puts what it might be in its place. */
  onReplace: (text: string) => void;
}

/** A stretch of a line that could not be read, with what it might be. */
export function Unread({ unread, onReplace }: UnreadProps) {
  return (
    <Flex gap="2" align="center" wrap="wrap" data-testid="unread">
      <Text>
        Not read:{" "}
        <Box as="span" textDecoration="underline wavy" textDecorationColor="breaks">
          {unread.text}
        </Box>
      </Text>
      {unread.couldBe.map((text) => (
        <Button key={text} size="sm" variant="outline" onClick={() => onReplace(text)}>
          {text}
        </Button>
      ))}
    </Flex>
  );
}
