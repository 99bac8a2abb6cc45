import { Box, Button, Link as ChakraLink, Flex, Heading, List, Stack, Text, Textarea } from "@chakra-ui/react";
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, unwrap } from "../../api/client";
import { earlierLogQuery, sessionQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { CopyButton } from "../../lib/CopyButton";
import { GradeTake } from "../../lib/GradeTake";
import { decimal } from "../../lib/locale";
import { Sheet } from "../../lib/Sheet";
import { whyBinned } from "../../lib/whyBinned";
import { clockIn, dayIn } from "../../lib/zone";
import { discard } from "../../offline/fieldLog";
import { draftsHere, forgetEverything } from "../../offline/forget";
import { useKeptOffline } from "../../offline/serviceWorker";
import { plannedOf } from "./asked";
import type { CardWork, Entry, Turn } from "./useCardWork";

interface LogSheetProps {
  work: CardWork;
  turn: Turn;
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
}

/** What was done in the field, what waits, what clashes; and the card to take along. */
export function LogSheet({ work, turn, isOpen, onOpen }: LogSheetProps) {
  const [words, setWords] = useState("");
  const { card, waiting, zone } = work;
  const clashes = openClashes(card.log);
  const shot = plannedOf(work, turn);
  const { data: earlier, ...older } = useInfiniteQuery({
    ...earlierLogQuery(card.shoot.id, card.earlier ?? ""),
    enabled: false, // until it is asked for
  });
  const log = [...card.log.toReversed(), ...(earlier?.pages.flatMap((page) => page.items) ?? [])];
  const hasEarlier = earlier ? older.hasNextPage : Boolean(card.earlier);
  return (
    <Sheet title="Log" isOpen={isOpen} onOpen={onOpen} size={{ base: "full", md: "lg" }}>
      <Stack gap="4" pb="6">
        <Stack gap="2">
          <Textarea
            aria-label="Note"
            placeholder="What did you see?"
            value={words}
            maxLength={500}
            onChange={(e) => setWords(e.target.value)}
            fontSize="lg"
            borderColor="edge"
          />
          <Button
            alignSelf="flex-start"
            disabled={words.trim() === ""}
            onClick={async () => {
              await work.note({ kind: "note", turn: turn.id, words: words.trim() });
              setWords(""); // once it is kept
            }}
          >
            Note it
          </Button>
        </Stack>
        {shot && (
          <Stack gap="1" data-testid="grade">
            <Text fontWeight="bold">{shot.name}</Text>
            <GradeTake
              onGrade={(grade, why) =>
                work.note({
                  kind: "outcome",
                  turn: turn.id,
                  shotId: shot.id,
                  words: `${shot.name}: ${grade}${why ? ` (${whyBinned(why)})` : ""}`,
                  outcome: { grade, ...(why && { why }) },
                })
              }
            />
            <Button asChild variant="outline" alignSelf="flex-start" mt="1">
              <Link to={`/measure/steps?shot=${shot.id}`}>Find its stabiliser limit by a shutter test</Link>
            </Button>
          </Stack>
        )}
        {clashes.map((e) => (
          <ClashBox key={e.id} work={work} entry={e} />
        ))}
        {waiting.length > 0 && (
          <Box bg="unknownSoft" rounded="lg" p="3" role="status" data-testid="waiting">
            <b>Waiting on this device for the server: {waiting.length}</b>
            <List.Root ps="4">
              {waiting.map((w) => (
                <List.Item key={w.id}>
                  {clockIn(w.entry.at, zone)} {entryWords(w.entry, work)}
                  {w.refused && (
                    <>
                      {" "}
                      <Text as="span" color="breaks">
                        not taken: {w.refused}
                      </Text>{" "}
                      <Button size="sm" variant="outline" onClick={() => discard(w.id)}>
                        Discard
                      </Button>
                    </>
                  )}
                </List.Item>
              ))}
            </List.Root>
            <CopyButton text={waiting.map((w) => `${w.entry.at} ${entryWords(w.entry, work)}`).join("\n")}>
              Copy what waits
            </CopyButton>
          </Box>
        )}
        <Box>
          <Heading as="h3" size="md">
            Done
          </Heading>
          {log.length === 0 && <Text color="muted">Nothing yet.</Text>}
          <List.Root ps="4" data-testid="log">
            {log.map((e) => (
              <List.Item key={e.id}>
                {dayIn(e.at, zone)}, {clockIn(e.at, zone)} {entryWords(e, work)}
                {e.clash && (
                  <Text as="span" color="tight">
                    {" "}
                    · {e.clash.words}
                    {e.clash.at && ` (${clockIn(e.clash.at, zone)})`}
                  </Text>
                )}
              </List.Item>
            ))}
          </List.Root>
          {hasEarlier && (
            <Button
              variant="outline"
              mt="2"
              loading={older.isFetching}
              onClick={() => (earlier ? older.fetchNextPage() : older.refetch())}
            >
              Show what was done before
            </Button>
          )}
          {older.error && <Text color="breaks">{older.error.message}</Text>}
        </Box>
        <Box>
          <Heading as="h3" size="md" mb="1">
            Save a copy
          </Heading>
          <Flex gap="2" wrap="wrap">
            <CopyButton text={work.answer.text}>Plan as text</CopyButton>
            <Button variant="outline" asChild>
              <a href={`/api/shoots/${card.shoot.id}/paper?size=a5`} download>
                PDF, A5
              </a>
            </Button>
            <Button variant="outline" asChild>
              <a href={`/api/shoots/${card.shoot.id}/paper?size=pocket`} download>
                PDF, pocket
              </a>
            </Button>
          </Flex>
          <KeptNote />
          <Leave waits={waiting.length} />
          <Text as="pre" mt="3" fontSize="sm" whiteSpace="pre-wrap" data-testid="plan-text">
            {work.answer.text}
          </Text>
        </Box>
      </Stack>
    </Sheet>
  );
}

/** Whether the card opens without its server on this device. */
function KeptNote() {
  const kept = useKeptOffline();
  return (
    <Text mt="2" data-testid="kept">
      {kept === "kept" && "This device opens the field card without its server."}
      {kept === "unknown" && "Whether this device opens the field card without its server is not known yet."}
      {kept === "not kept" && (
        <>
          This browser will <b>not open the field card without its server</b> from this address: it keeps pages only
          from itself, or over a certificate that it trusts. Take the plan as text or PDF along, or install the server's{" "}
          <ChakraLink href="/ca.crt" color="accent">
            certificate
          </ChakraLink>
          .
        </>
      )}
    </Text>
  );
}

/** The way out of a device that was let in, which keeps nothing then; the server need not be there. */
function Leave({ waits }: { waits: number }) {
  const queries = useQueryClient();
  const { data: session } = useQuery(sessionQuery);
  const [isAsked, setAsked] = useState(false);
  const leave = useMutation({
    mutationFn: async () => {
      // Without its server the device forgets its key, which then opens nothing more.
      await unwrap(api.DELETE("/api/session")).catch(() => undefined);
      await forgetEverything(queries);
    },
    onSuccess: () => window.location.reload(), // what is on the screen goes as well
  });
  if (!session?.needed) return null;
  const lost = [
    waits > 0 && `${waits} ${waits === 1 ? "entry" : "entries"} not sent yet`,
    draftsHere() > 0 && `${draftsHere()} ${draftsHere() === 1 ? "draft" : "drafts"} of shots`,
  ].filter(Boolean);
  if (!isAsked || lost.length === 0) {
    return (
      <Button
        mt="2"
        variant="outline"
        loading={leave.isPending}
        onClick={() => (lost.length > 0 ? setAsked(true) : leave.mutate())}
      >
        Leave this device
      </Button>
    );
  }
  return (
    <Box mt="2" borderWidth="2px" borderColor="breaks" rounded="lg" p="3" role="alert">
      <Text>Leaving drops {lost.join(" and ")} for good.</Text>
      <Flex gap="2" mt="2" wrap="wrap">
        <Button loading={leave.isPending} onClick={() => leave.mutate()}>
          Drop and leave
        </Button>
        <Button variant="ghost" onClick={() => setAsked(false)}>
          Stay
        </Button>
      </Flex>
    </Box>
  );
}

type Logged = Schemas["StoredFieldEntry"];

/** Pins that were not laid over another, and that nobody has settled since. */
function openClashes(log: Logged[]): Logged[] {
  return log.filter(
    (e, i) => e.kind === "pin" && e.clash && !log.slice(i + 1).some((x) => x.kind === "pin" || x.step === e.id),
  );
}

/** Two pins that do not agree; one of them is chosen. */
function ClashBox({ work, entry }: { work: CardWork; entry: Logged }) {
  const theirs = work.card.shoot.day?.anchor;
  const at = (a: Schemas["Anchor"] | undefined) =>
    a ? `EV ${decimal(a.ev100, 1)} at ${clockIn(a.at, work.zone)}` : "no correction";
  return (
    <Box borderWidth="2px" borderColor="tight" rounded="lg" p="3" role="alert" data-testid="clash">
      <Text fontWeight="bold">Two corrections of the forecast do not agree.</Text>
      <Text>
        Here: {at(entry.anchor)} ({entry.words}). Standing: {at(theirs)}
        {theirs?.words && ` (${theirs.words})`}.
      </Text>
      <Flex gap="2" mt="2" wrap="wrap">
        <Button
          onClick={() =>
            entry.anchor &&
            work.note({
              kind: "pin",
              words: entry.words ?? "",
              anchor: entry.anchor,
              step: entry.id,
              ...(theirs && { was: theirs }),
            })
          }
        >
          Use this one
        </Button>
        <Button
          variant="outline"
          onClick={() => work.note({ kind: "note", step: entry.id, words: `left standing: ${at(theirs)}` })}
        >
          Leave what stands
        </Button>
      </Flex>
    </Box>
  );
}

/** An entry in a line. */
function entryWords(e: Entry, work: CardWork): string {
  const of = work.answer.cameras.flatMap((c) => c.turns).find((t) => t.id === e.turn);
  const step = of?.checks.find((c) => c.step === e.step)?.words ?? e.step ?? "";
  const where = of ? `${of.name}: ` : "";
  switch (e.kind) {
    case "tick":
      return `${where}done: ${step}`;
    case "untick":
      return `${where}taken back: ${step}`;
    case "override":
      return `${where}gone on without: ${step} (${e.words})`;
    case "reading":
      return `read EV ${decimal(e.reading?.ev100, 1)}: ${e.words}`;
    case "pin":
      return `forecast corrected by EV ${decimal(e.anchor?.ev100, 1)}: ${e.words}`;
    case "outcome":
    case "step":
      return e.words ?? "";
    default:
      return `${where}${e.words}`;
  }
}
