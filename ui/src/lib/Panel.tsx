import { Box, type BoxProps, Flex, Heading, Text } from "@chakra-ui/react";

interface PanelProps extends BoxProps {
  heading: string;
  /** One quiet line beside the heading. */
  note?: React.ReactNode;
}

/** A titled part of a place. */
export function Panel({ heading, note, children, ...box }: PanelProps) {
  return (
    <Box
      as="section"
      aria-label={heading}
      bg="panel"
      borderWidth="1px"
      borderColor="edge"
      rounded="xl"
      p={{ base: "3", md: "4" }}
      {...box}
    >
      <Flex gap="3" align="baseline" wrap="wrap" mb="2">
        <Heading as="h2" size="md">
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
