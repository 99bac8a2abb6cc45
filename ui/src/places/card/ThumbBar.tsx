import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { CircleGauge, ListChecks, NotebookPen, TriangleAlert } from "lucide-react";
import type { Open } from "./open";
import type { CardWork, Turn } from "./useCardWork";

interface ThumbBarProps {
  turn: Turn;
  work: CardWork;
  onOpen: (open: Open) => void;
  /** What stands above the buttons. */
  children: React.ReactNode;
}

/** On a phone that is turned the two rows would take half the screen. */
const SIDE_BY_SIDE = {
  "@media (max-height: 30rem)": {
    flexDirection: "row",
    alignItems: "center",
    "& > *": { flex: 1, minWidth: 0 },
  },
} as const;

/** What is done most, where the thumb is. */
export function ThumbBar({ turn, work, onOpen, children }: ThumbBarProps) {
  const done = turn.checks.filter((c) => c.at).length;
  const waits = work.waiting.length;
  return (
    <Stack
      as="section"
      aria-label="Do"
      css={SIDE_BY_SIDE}
      _print={{ display: "none" }}
      gap="1"
      position={{ base: "fixed", md: "sticky" }}
      bottom="0"
      insetInline="0"
      px="2"
      mx={{ md: "-2" }}
      pt="1.5"
      // Down to the edge, behind the places: nothing is read between the two.
      pb={{ base: "69px", md: "1.5" }}
      bg="page"
      borderTopWidth="1px"
      borderColor="edge"
      zIndex="10"
    >
      {children}
      <Flex gap="1">
        <Big icon={<CircleGauge aria-hidden />} name="Re-meter" onPress={() => onOpen({ sheet: "remeter" })} />
        <Big
          icon={<ListChecks aria-hidden />}
          name={`Checks ${done}/${turn.checks.length}`}
          onPress={() => onOpen({ sheet: "checks" })}
        />
        <Big
          icon={<TriangleAlert aria-hidden />}
          name="Goes wrong"
          onPress={() => onOpen({ sheet: "drill", name: turn.drills[0]?.name ?? "" })}
        />
        <Big
          icon={<NotebookPen aria-hidden />}
          name={waits > 0 ? `Log · ${waits} wait` : "Log"}
          onPress={() => onOpen({ sheet: "log" })}
        />
      </Flex>
    </Stack>
  );
}

function Big({ icon, name, onPress }: { icon: React.ReactNode; name: string; onPress: () => void }) {
  return (
    <Button flex="1" minW="0" h="60px" px="1" variant="outline" flexDirection="column" gap="0.5" onClick={onPress}>
      {icon}
      <Text as="span" fontSize="sm" lineHeight="1.1" whiteSpace="normal">
        {name}
      </Text>
    </Button>
  );
}
