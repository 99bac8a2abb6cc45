import { Button, Flex, Text } from "@chakra-ui/react";
import { CircleGauge, ListChecks, NotebookPen, TriangleAlert } from "lucide-react";
import type { Open } from "./open";
import style from "./ThumbBar.module.css";
import type { CardWork, Turn } from "./useCardWork";

interface ThumbBarProps {
  turn: Turn;
  work: CardWork;
  onOpen: (open: Open) => void;
  /** What stands above the buttons. */
  children: React.ReactNode;
}

/** What is done most, where the thumb is. */
export function ThumbBar({ turn, work, onOpen, children }: ThumbBarProps) {
  const done = turn.checks.filter((c) => c.at).length;
  const waits = work.waiting.length;
  return (
    <section aria-label="Do" className={style.bar}>
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
    </section>
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
