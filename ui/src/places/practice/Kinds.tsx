import { Table, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/client";
import { decimal } from "../../lib/locale";
import { Panel } from "../../lib/Panel";
import { KINDS } from "./kinds";
import { type Due, isDue } from "./schedule";

const DAY_MS = 86_400_000;

/** Each kind of question: when it is due, and how it goes. */
export function Kinds({ due, progress }: { due: readonly Due[]; progress: Schemas["PracticeProgress"] | undefined }) {
  const now = Date.now();
  const of = new Map(progress?.kinds.map((k) => [k.kind, k]));
  return (
    <Panel heading="How it goes" note="the latest twenty of each kind; half were answered faster than the time">
      <Table.ScrollArea tabIndex={0} role="region" aria-label="Kinds of question, and how they go">
        <Table.Root size="sm" data-testid="kinds">
          <Table.Header>
            <Table.Row>
              {["Question", "Due", "Right", "Time", "Grade"].map((name) => (
                <Table.ColumnHeader key={name}>{name}</Table.ColumnHeader>
              ))}
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {due.map((d) => {
              const k = of.get(d.kind);
              return (
                <Table.Row key={d.kind}>
                  <Table.Cell>
                    {KINDS[d.kind]}
                    {d.mistake && (
                      <Text color="tight" fontSize="sm">
                        from the log: {d.mistake}
                      </Text>
                    )}
                  </Table.Cell>
                  <Table.Cell whiteSpace="nowrap">{dueWords(d, now)}</Table.Cell>
                  <Table.Cell whiteSpace="nowrap">
                    {k && `${k.latest.right} of ${k.latest.of}${wasRight(k)}`}
                  </Table.Cell>
                  <Table.Cell whiteSpace="nowrap">
                    {k && `${decimal(k.latest.seconds, 0)} s${k.before ? `, was ${decimal(k.before.seconds, 0)}` : ""}`}
                  </Table.Cell>
                  <Table.Cell>{k?.grade ?? 1}</Table.Cell>
                </Table.Row>
              );
            })}
          </Table.Body>
        </Table.Root>
      </Table.ScrollArea>
    </Panel>
  );
}

const wasRight = ({ before }: Schemas["PracticeKindProgress"]): string =>
  before ? `, was ${before.right} of ${before.of}` : "";

function dueWords(d: Due, now: number): string {
  if (d.at === undefined) return "not asked yet";
  if (isDue(d, now)) return "now";
  const days = Math.ceil((d.at - now) / DAY_MS);
  return days <= 1 ? "within a day" : `in ${days} days`;
}
