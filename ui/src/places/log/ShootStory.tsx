import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { learnedQuery, recordsQuery, shotsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { CopyButton } from "../../lib/CopyButton";
import { signed } from "../../lib/format";
import { BARE, GONE, together } from "../../lib/glass";
import { decimal } from "../../lib/locale";
import { Table } from "../../lib/Table";
import { whyBinned } from "../../lib/whyBinned";
import { clockIn, dayIn } from "../../lib/zone";
import { costWords } from "./recordWords";

type StoredRecord = Schemas["StoredRecord"];

interface Row {
  shot: Schemas["StoredShot"];
  planned: string;
  done: string;
  light: string;
  pictures: readonly string[];
}

/** How a shoot went: of each shot what was planned beside what was done, and how far the light was off. */
export function ShootStory({ shoot }: { shoot: Schemas["StoredShoot"] }) {
  const { data: shots = [] } = useQuery(shotsQuery);
  const { data: records = [] } = useQuery(recordsQuery);
  const { data: learned } = useQuery(learnedQuery);
  const own = records.filter((r) => r.shootId === shoot.id && !r.struck);
  const rows = shots
    .filter((s) => s.shootId === shoot.id)
    .map((shot) => rowOf(shot, shoot, own, learned?.names ?? {}))
    .filter((row) => row.planned || row.done || row.light);
  if (rows.length === 0) return null;
  const zone = shoot.day?.zone ?? "UTC";
  const text = [
    shoot.name,
    ...rows.map(({ shot, planned, done, light }) =>
      [
        shot.startsAt && `${dayIn(shot.startsAt, zone)}, ${clockIn(shot.startsAt, zone)}`,
        shot.name,
        planned && `planned ${planned}`,
        done,
        light,
      ]
        .filter(Boolean)
        .join("; "),
    ),
  ].join("\n");
  return (
    <Stack gap="2" mb="3" data-testid="story">
      <Table label={`How ${shoot.name} went`} heads={["Shot", "Planned", "Came out", "Light"]}>
        {rows.map(({ shot, planned, done, light, pictures }) => (
          <tr key={shot.id}>
            <td>{shot.name}</td>
            <td>{planned}</td>
            <td>
              {done}
              <Flex gap="1" mt={pictures.length > 0 ? "1" : "0"}>
                {pictures.map((picture) => (
                  <img key={picture} src={`data:image/jpeg;base64,${picture}`} alt="From the clip" width={72} />
                ))}
              </Flex>
            </td>
            <td>{light}</td>
          </tr>
        ))}
      </Table>
      <Flex gap="2" wrap="wrap" align="center">
        <CopyButton text={text}>Copy as text</CopyButton>
        <Button variant="outline" onClick={() => window.print()}>
          Print
        </Button>
        <Text color="muted" fontSize="sm">
          {own.length} records
        </Text>
      </Flex>
    </Stack>
  );
}

function rowOf(
  shot: Schemas["StoredShot"],
  shoot: Schemas["StoredShoot"],
  records: readonly StoredRecord[],
  names: Record<string, string>,
): Row {
  const glass = (ids: readonly string[]) =>
    together(
      ids.map((id) => names[id] ?? GONE),
      BARE,
    );
  const stack = shoot.kept?.glass[shot.id];
  // A stack is named by its camera, how that is held, and behind a colon its filters.
  const stacked = stack
    ?.slice(stack.indexOf(":") + 1)
    .split("+")
    .filter(Boolean);
  const planned = stacked ? glass(stacked) : "";
  const own = records.filter((r) => r.shotId === shot.id).sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const takes = own.filter((r) => r.took);
  const done = takes
    .map(({ took, glass: on = [] }) =>
      [
        took?.kept ? (took.grade ?? "kept") : `binned${took?.why ? `, ${whyBinned(took.why)}` : ""}`,
        [glass(on), took && costWords(took)].filter(Boolean).join(", "),
      ].join(" with "),
    )
    .join("; ");
  const seen = own.filter((r) => r.seen && r.there).at(-1);
  const light =
    seen?.seen && seen.there
      ? `EV ${decimal(seen.seen.ev100, 1)}, forecast ${decimal(seen.there.ev100, 1)}${
          seen.glass?.length ? ` through ${glass(seen.glass)}` : `: ${signed(seen.seen.ev100 - seen.there.ev100)} stops`
        }`
      : "";
  return { shot, planned, done, light, pictures: takes.flatMap((r) => r.took?.clip?.pictures ?? []).slice(0, 3) };
}
