import { Box, Button, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/client";
import { StateMark } from "../../lib/StateMark";

type Trade = Schemas["WindowTrade"];

interface TradesProps {
  window: Schemas["WindowAnswer"];
  /** The trade that was made last and can be undone. */
  made: string | undefined;
  /** Gear that is only being tried, in words. */
  tried: readonly string[];
  onTrade: (trade: Trade) => void;
  onUndo: () => void;
  onDropTried: () => void;
}

/** What the whole shot is like with the trade made. */
function leaves({ state, still, gainStops, leavesStops }: Trade): string {
  if (state === "holds") return "resolves it";
  const left = `${leavesStops.toFixed(1)} stops`;
  if (state === "breaks") return `gains ${gainStops.toFixed(1)}, still breaks by ${left}${still ? `: ${still}` : ""}`;
  return still ? `serves, tight: ${still}` : "serves, tight";
}

/** Which pair excludes each other, and what one could give for the other. */
export function Trades({ window, made, tried, onTrade, onUndo, onDropTried }: TradesProps) {
  const [conflict] = window.conflicts;
  return (
    <Stack gap="2" data-testid="trades">
      {made && (
        <Box bg="accentSoft" rounded="md" px="3" py="1.5" display="flex" gap="2" alignItems="center">
          <Text flex="1">Applied: {made}</Text>
          <Button size="sm" variant="outline" onClick={onUndo}>
            Undo
          </Button>
        </Box>
      )}
      {tried.length > 0 && (
        <Box
          borderWidth="1px"
          borderColor="accent"
          rounded="md"
          px="3"
          py="1.5"
          display="flex"
          gap="2"
          alignItems="center"
        >
          <Text flex="1">Only tried: {tried.join(", ")}</Text>
          <Button size="sm" variant="ghost" onClick={onDropTried}>
            Back to what I have
          </Button>
        </Box>
      )}
      {conflict && <StateMark state={conflict.verdict}>{conflict.text}</StateMark>}
      {window.trades.length > 0 && (
        <>
          <Text color="muted" fontSize="sm" fontWeight="bold">
            Give way, one of
          </Text>
          {window.trades.map((trade) => (
            <Button
              key={trade.kind}
              variant="outline"
              h="auto"
              py="1.5"
              px="3"
              justifyContent="flex-start"
              textAlign="start"
              whiteSpace="normal"
              onClick={() => onTrade(trade)}
            >
              <Stack gap="0">
                <Text fontWeight="bold">{trade.does}</Text>
                <Text color="muted" fontWeight="normal" fontSize="sm">
                  {leaves(trade)} · {trade.costs}
                </Text>
              </Stack>
            </Button>
          ))}
        </>
      )}
    </Stack>
  );
}
