import { Heading, Stack, Text } from "@chakra-ui/react";

interface EmptyStateProps {
  heading: string;
  /** What is not there, and what would bring it. */
  says: string;
  /** The way on. */
  children?: React.ReactNode;
}

/** A place, or a part of one, in which there is nothing yet. */
export function EmptyState({ heading, says, children }: EmptyStateProps) {
  return (
    <Stack align="flex-start" gap="3" py="8" maxW="640px">
      <Heading as="h1" size="2xl">
        {heading}
      </Heading>
      <Text>{says}</Text>
      {children}
    </Stack>
  );
}
