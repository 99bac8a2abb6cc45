import { Box, Link as ChakraLink, Stack, Text } from "@chakra-ui/react";
import { Link } from "react-router";
import type { Planned } from "../../api/plan";
import { evWords, Lights } from "../../lib/Lights";
import { StateMark } from "../../lib/StateMark";

/**
 * What the day makes of this shot, beside what is typed here: each light that is known,
 * how far they differ, and the glass for the strongest of them.
 */
export function InThePlan({ planned: { plan, glass }, shootId }: { planned: Planned; shootId: string }) {
  const isTyped = plan.lights.find((l) => l.isUsed)?.kind === "typed";
  return (
    <Box borderTopWidth="1px" borderColor="edge" pt="3" data-testid="in-the-plan">
      <Stack gap="1.5">
        <Text fontWeight="bold" fontSize="sm">
          {isTyped ? "The plan of the day goes by this light" : "The plan of the day goes by another light"}
        </Text>
        <Lights lights={plan.lights} />
        <Text fontWeight="bold">{glass}</Text>
        <StateMark state={plan.state}>{plan.words}</StateMark>
        <ChakraLink asChild fontSize="sm">
          <Link to={`/shoot/${shootId}`}>Plan of the day</Link>
        </ChakraLink>
      </Stack>
    </Box>
  );
}

/** The same in a line, for the head of the screen: what goes on by the light that is used. */
export function PlanLine({ planned, isAwaited }: { planned: Planned | undefined; isAwaited: boolean }) {
  const light = planned?.plan.lights.find((l) => l.isUsed);
  if (!light && !isAwaited) return null;
  return (
    <Text
      data-testid="plan-line"
      fontSize="sm"
      minW={{ base: "full", lg: "0" }}
      minH={{ base: "2lh", sm: "1lh" }}
      lineClamp={{ base: 2, sm: 1 }}
    >
      {planned && light && (
        <>
          In the plan, for {evWords(light)}, {light.words}: <b>{planned.glass}</b>, {planned.plan.state}
        </>
      )}
    </Text>
  );
}
