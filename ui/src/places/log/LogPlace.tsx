import { Flex, Heading, Skeleton, Stack } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { learnedQuery, recordsQuery, shootsQuery } from "../../api/queries";
import { Choice } from "../../lib/Choice";
import { EmptyState } from "../../lib/EmptyState";
import { useTitle } from "../../lib/useTitle";
import { Records } from "./Records";
import { ShootLog } from "./ShootLog";
import { Taught } from "./Taught";

const VIEWS = [
  { value: "taught", name: "What it taught" },
  { value: "records", name: "Records" },
  { value: "cards", name: "Field cards" },
] as const;
type View = (typeof VIEWS)[number]["value"];

/** What happened, and what it taught. */
export function LogPlace() {
  useTitle("Log");
  const [params, setParams] = useSearchParams();
  const { data: shoots } = useQuery(shootsQuery);
  const { data: records } = useQuery(recordsQuery);
  const { data: learned } = useQuery(learnedQuery);
  if (!shoots || !records || !learned) return <Skeleton h="300px" aria-busy="true" aria-label="Loading the log" />;
  if (shoots.length === 0 && records.length === 0) {
    return (
      <EmptyState
        heading="Log"
        says="Nothing has happened yet: what you read, tick and shoot is recorded by itself, and listed here with what it teaches."
      />
    );
  }
  const usual: View = learned.records > 0 ? "taught" : "cards";
  const view = VIEWS.find((v) => v.value === params.get("view"))?.value ?? usual;
  return (
    <Stack gap="3">
      <Flex gap="4" align="baseline" wrap="wrap">
        <Heading as="h1" size="xl">
          Log
        </Heading>
        <Choice
          label="What is shown"
          options={VIEWS}
          value={view}
          onChange={(next) => setParams({ view: next }, { replace: true })}
        />
      </Flex>
      {view === "taught" && <Taught learned={learned} records={records} />}
      {view === "records" && <Records records={records} learned={learned} />}
      {view === "cards" && shoots.map((shoot) => <ShootLog key={shoot.id} shoot={shoot} />)}
    </Stack>
  );
}
