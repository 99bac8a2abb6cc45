import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/client";
import { Drawer } from "../../lib/Drawer";
import { decimal } from "../../lib/locale";
import { StateShape } from "../../lib/StateMark";

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
  const left = `${decimal(leavesStops, 1)} stops`;
  if (state === "breaks") return `gains ${decimal(gainStops, 1)}, still breaks by ${left}${still ? `: ${still}` : ""}`;
  return still ? `covers it, tight: ${still}` : "covers it, tight";
}

/** Which pair excludes each other, and what one could give for the other. */
export function Trades({ window, made, tried, onTrade, onUndo, onDropTried }: TradesProps) {
  const [conflict] = window.conflicts;
  const [first, ...rest] = window.trades;
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
          <Text flex="1">Previewing: {tried.join(", ")}</Text>
          <Button size="sm" variant="ghost" onClick={onDropTried}>
            Back to my gear
          </Button>
        </Box>
      )}
      {conflict && (
        <Flex gap="2" fontSize="sm" color={conflict.verdict}>
          <Box pt="1">
            <StateShape state={conflict.verdict} size={12} />
          </Box>
          <Text lineHeight="1.35">{conflict.text}</Text>
        </Flex>
      )}
      {first && (
        <>
          <Text color="muted" fontSize="sm" fontWeight="bold">
            Ways out
          </Text>
          <TradeButton trade={first} onTrade={onTrade} />
          {rest.length > 0 && (
            <Drawer isPlain heading="More ways out" result={rest.map((t) => t.does).join(", ")}>
              <Stack gap="1.5">
                {rest.map((trade) => (
                  <TradeButton key={trade.kind} trade={trade} onTrade={onTrade} />
                ))}
              </Stack>
            </Drawer>
          )}
        </>
      )}
    </Stack>
  );
}

/** A way out, what the whole shot is with it, and what it costs. */
function TradeButton({ trade, onTrade }: { trade: Trade; onTrade: (trade: Trade) => void }) {
  return (
    <Button
      variant="outline"
      h="auto"
      py="1"
      px="2.5"
      justifyContent="flex-start"
      textAlign="start"
      whiteSpace="normal"
      onClick={() => onTrade(trade)}
    >
      <Stack gap="0">
        <Text fontWeight="bold">{trade.does}</Text>
        <Text color="muted" fontWeight="normal" fontSize="sm" lineHeight="1.3">
          {leaves(trade)} · {trade.costs}
        </Text>
      </Stack>
    </Button>
  );
}
