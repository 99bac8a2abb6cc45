import { Box, Flex, Text } from "@chakra-ui/react";
import { greyOf } from "../../lib/glass";

/** The halving ladder: each step is one stop darker than the one before, and drawn so. */
export function Ladder({ steps }: { steps: readonly string[] }) {
  return (
    <Flex role="img" aria-label={`${steps.join(", ")}: each one stop less`} wrap="wrap" rowGap="2" data-testid="ladder">
      {steps.map((step, i) => (
        <Box key={step} minW="64px" textAlign="center">
          <Text fontSize="sm" color="muted">
            {i === 0 ? "from" : i}
          </Text>
          <Box
            h="20px"
            borderWidth="1px"
            borderColor="edge"
            style={{ background: greyOf(i).fill, forcedColorAdjust: "none" }}
          />
          <Text fontWeight="bold">{step}</Text>
        </Box>
      ))}
    </Flex>
  );
}
