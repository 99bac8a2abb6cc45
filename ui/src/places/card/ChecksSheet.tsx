import { Box, Button, Flex, Stack, Text, Textarea } from "@chakra-ui/react";
import { useState } from "react";
import type { Schemas } from "../../api/schemas";
import { Sheet } from "../../lib/Sheet";
import { StateMark } from "../../lib/StateMark";
import { clockIn } from "../../lib/zone";
import type { CardWork, Turn } from "./useCardWork";

type Check = Schemas["CardCheck"];

interface ChecksSheetProps {
  work: CardWork;
  turn: Turn;
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
}

/** The steps before a take, each ticked with its time. */
export function ChecksSheet({ work, turn, isOpen, onOpen }: ChecksSheetProps) {
  const [passing, setPassing] = useState<string | null>(null);
  const mark = (check: Check, kind: "tick" | "untick" | "override", words = check.words) =>
    work.note({ kind, turn: turn.id, step: check.step, words });
  return (
    <Sheet title={`Before ${turn.name}`} isOpen={isOpen} onOpen={onOpen} size={{ base: "full", md: "lg" }}>
      <Stack gap="2" pb="6">
        <Box role="status" data-testid="readiness">
          {turn.readiness === "ready" && <StateMark state="holds">all done: ready</StateMark>}
          {turn.readiness === "open" && (
            <StateMark state="tight">no required check is open; the rest is not all done</StateMark>
          )}
          {turn.readiness === "stopped" && (
            <StateMark state="breaks">
              not ready: {turn.stops.length === 1 ? "1 required check" : `${turn.stops.length} required checks`}
            </StateMark>
          )}
        </Box>
        {turn.known && (
          <Flex gap="2" align="center" wrap="wrap" data-testid="known-glass">
            <Text flex="1">
              A short list: this was checked whole before, and neither camera, rig nor filter was changed since.
            </Text>
            <Button variant="outline" onClick={work.askWhole}>
              Full list
            </Button>
          </Flex>
        )}
        {turn.checks.map((check) => (
          <Box
            key={check.step}
            borderWidth="1px"
            borderColor={check.hard && !check.at ? "breaks" : "edge"}
            rounded="lg"
          >
            <Step check={check} zone={work.zone} onToggle={() => mark(check, check.at ? "untick" : "tick")} />
            {check.hard && !check.at && passing !== check.step && (
              <Button variant="plain" color="breaks" ms="10" onClick={() => setPassing(check.step)}>
                Go on without it…
              </Button>
            )}
            {check.hard && !check.at && passing === check.step && (
              <Override
                onCancel={() => setPassing(null)}
                onReason={(reason) => {
                  void mark(check, "override", reason);
                  setPassing(null);
                }}
              />
            )}
          </Box>
        ))}
        <Text color="muted" fontSize="sm">
          Ticks are for this take and this filter alone. The maker's instructions and local rules come first.
        </Text>
      </Stack>
    </Sheet>
  );
}

function Step({ check, zone, onToggle }: { check: Check; zone: string; onToggle: () => void }) {
  const isDone = Boolean(check.at);
  return (
    <Button
      variant="plain"
      role="checkbox"
      aria-checked={isDone}
      disabled={check.barred && !isDone}
      w="100%"
      minH="56px"
      h="auto"
      py="2"
      px="3"
      gap="3"
      justifyContent="flex-start"
      textAlign="left"
      whiteSpace="normal"
      color="ink"
      _disabled={{ opacity: 1, cursor: "default" }}
      onClick={onToggle}
    >
      <Mark isDone={isDone} isOverridden={Boolean(check.reason)} />
      <Box flex="1">
        <Text fontSize="lg" fontWeight={check.hard ? "bold" : "medium"}>
          {check.words}
        </Text>
        {check.hard && !isDone && <Text color="breaks">required</Text>}
        {check.at && (
          <Text color="muted">
            {check.reason
              ? `gone on without it at ${clockIn(check.at, zone)}: ${check.reason}`
              : clockIn(check.at, zone)}
            {(check.again ?? []).map((at) => ` · ticked again ${clockIn(at, zone)}`)}
          </Text>
        )}
      </Box>
    </Button>
  );
}

/** Open, done, or gone on without: by shape. */
function Mark({ isDone, isOverridden }: { isDone: boolean; isOverridden: boolean }) {
  return (
    <svg width="32" height="32" viewBox="0 0 32 32" aria-hidden="true" style={{ flexShrink: 0, width: 32, height: 32 }}>
      <rect x="2" y="2" width="28" height="28" rx="6" fill="none" stroke="currentColor" strokeWidth="2.5" />
      {isDone && !isOverridden && <path d="M8 16l6 6 10-12" fill="none" stroke="currentColor" strokeWidth="4" />}
      {isOverridden && <path d="M16 7v11M16 22v3" stroke="currentColor" strokeWidth="4" />}
    </svg>
  );
}

function Override({ onReason, onCancel }: { onReason: (reason: string) => void; onCancel: () => void }) {
  const [reason, setReason] = useState("");
  return (
    <Stack p="3" gap="2">
      <Text fontWeight="bold" color="breaks">
        Why go on without it? The reason goes to the log.
      </Text>
      <Textarea
        aria-label="The reason"
        value={reason}
        maxLength={500}
        onChange={(e) => setReason(e.target.value)}
        fontSize="lg"
        borderColor="edge"
      />
      <Flex gap="2">
        <Button disabled={reason.trim() === ""} onClick={() => onReason(reason.trim())}>
          Log it and go on
        </Button>
        <Button variant="outline" onClick={onCancel}>
          Do not
        </Button>
      </Flex>
    </Stack>
  );
}
