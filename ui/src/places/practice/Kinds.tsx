import { Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { decimal } from "../../lib/locale";
import { Panel } from "../../lib/Panel";
import { Table } from "../../lib/Table";
import { KINDS } from "./kinds";
import { type Due, isDue } from "./schedule";

const DAY_MS = 86_400_000;

/** Each kind of question: when it is due, and how it goes. */
export function Kinds({ due, progress }: { due: readonly Due[]; progress: Schemas["PracticeProgress"] | undefined }) {
  const now = Date.now();
  const of = new Map(progress?.kinds.map((k) => [k.kind, k]));
  return (
    <Panel heading="How it goes" note="the latest twenty of each kind; half were answered faster than the time">
      <Table
        label="Kinds of question, and how they go"
        testId="kinds"
        heads={["Question", "Due", "Right", "Time", "Grade"]}
      >
        {due.map((d) => {
          const k = of.get(d.kind);
          return (
            <tr key={d.kind}>
              <td>
                {KINDS[d.kind]}
                {d.mistake && (
                  <Text color="tight" fontSize="sm">
                    from the log: {d.mistake}
                  </Text>
                )}
              </td>
              <td>{dueWords(d, now)}</td>
              <td>{k && `${k.latest.right} of ${k.latest.of}${wasRight(k)}`}</td>
              <td>
                {k && `${decimal(k.latest.seconds, 0)} s${k.before ? `, was ${decimal(k.before.seconds, 0)}` : ""}`}
              </td>
              <td>{k?.grade ?? 1}</td>
            </tr>
          );
        })}
      </Table>
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
