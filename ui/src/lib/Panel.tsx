import { Box, type BoxProps, Flex, Heading, Text } from "@chakra-ui/react";

interface PanelProps extends BoxProps {
  heading: string;
  /** One quiet line beside the heading. */
  note?: React.ReactNode;
  /** Where room is short: a small heading and narrow edges. */
  isDense?: boolean;
  /** For a part whose first words say what it is: the heading is only read aloud. */
  isHeadingHidden?: boolean;
}

/** A titled part of a place. */
export function Panel({ heading, note, isDense, isHeadingHidden, children, ...box }: PanelProps) {
  return (
    <Box
      as="section"
      aria-label={heading}
      bg="panel"
      borderWidth="1px"
      borderColor="edge"
      rounded="xl"
      p={isDense ? "2.5" : { base: "3", md: "4" }}
      {...box}
    >
      <Flex gap="3" align="baseline" wrap="wrap" srOnly={isHeadingHidden} mb={isDense ? "0.5" : "2"}>
        <Heading as="h2" size={isDense ? "sm" : "md"}>
          {heading}
        </Heading>
        {note && (
          <Text color="muted" fontSize="sm">
            {note}
          </Text>
        )}
      </Flex>
      {children}
    </Box>
  );
}
