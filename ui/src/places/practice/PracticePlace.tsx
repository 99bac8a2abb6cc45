import { Button, Flex, Grid, Heading, List, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { useReach } from "../../api/reach";
import { Panel } from "../../lib/Panel";
import { TickBox } from "../../lib/TickBox";
import { useTitle } from "../../lib/useTitle";
import { Calibrated } from "./Calibrated";
import { Kinds } from "./Kinds";
import { KINDS } from "./kinds";
import { Question } from "./Question";
import { Sets } from "./Sets";
import { isDue } from "./schedule";
import { keptSet } from "./sets";
import { usePractice } from "./usePractice";
import { type Session, useSession } from "./useSession";

const endOfToday = (): number => new Date().setHours(24, 0, 0, 0);

/** Can I do it in my head? */
export function PracticePlace() {
  useTitle("Practice");
  const practice = usePractice();
  const isThere = useReach();
  const [set, setSet] = useState(keptSet);
  const [hasPictures, setPictures] = useState(true);
  const session = useSession(practice, set, hasPictures);
  if (practice.isLoading) return <Skeleton h="300px" aria-busy="true" aria-label="Loading practice" />;
  if (session.isRunning)
    return (
      <Stack gap="3" maxW="720px" mx="auto">
        <Heading as="h1" srOnly>
          Practice
        </Heading>
        <Left session={session} />
        <Question session={session} />
      </Stack>
    );
  const kinds = new Set(set.kinds.map((k) => k.kind));
  const due = practice.due.filter((d) => kinds.has(d.kind) && isDue(d, endOfToday())).length;
  return (
    <Stack gap="3">
      <Flex gap="4" align="center" wrap="wrap">
        <Heading as="h1" size="xl">
          Practice
        </Heading>
        <Button size="xl" onClick={session.begin}>
          {session.isOver ? "Once more" : "Three minutes"}
        </Button>
        <Text data-testid="due">{due === 0 ? "Nothing is due." : `${due} due today`}</Text>
        <TickBox isOn={!hasPictures} onChange={(without) => setPictures(!without)}>
          Without pictures
        </TickBox>
        {!isThere && <Text color="muted">Without the server questions by pictures are left out.</Text>}
      </Flex>
      {session.isOver && <Over session={session} />}
      <Grid gap="3" templateColumns={{ base: "minmax(0,1fr)", xl: "minmax(0,3fr) minmax(0,2fr)" }} alignItems="start">
        <Kinds due={practice.due} progress={practice.progress} />
        <Stack gap="3" minW="0">
          {(practice.progress || practice.isProgressAwaited) && <Calibrated progress={practice.progress} />}
          <Sets set={set} onSet={setSet} />
        </Stack>
      </Grid>
    </Stack>
  );
}

const SECOND_MS = 1000;

/** What is left of the session; it ends with the question that is open then. */
function Left({ session }: { session: Session }) {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), SECOND_MS);
    return () => clearInterval(timer);
  }, []);
  const left = Math.max(0, Math.ceil(((session.endsAt ?? now) - now) / SECOND_MS));
  const right = session.done.filter((d) => d.isRight).length;
  return (
    <Flex justify="space-between" color="muted" fontVariantNumeric="tabular-nums">
      <Text>{session.done.length === 0 ? "First question" : `${right} of ${session.done.length} right`}</Text>
      <Text>
        {left === 0 ? "the last question" : `${Math.floor(left / 60)}:${String(left % 60).padStart(2, "0")} left`}
      </Text>
    </Flex>
  );
}

/** How a session went. */
function Over({ session }: { session: Session }) {
  const { done } = session;
  const right = done.filter((d) => d.isRight).length;
  const wrong = [...new Set(done.filter((d) => !d.isRight).map((d) => d.kind))];
  const surelyWrong = done.filter((d) => !d.isRight && d.confidence === "sure").length;
  return (
    <Panel heading="This session" data-testid="over">
      {done.length === 0 && <Text>Nothing was answered.</Text>}
      {done.length > 0 && (
        <Text fontSize="xl" role="status">
          {right} of {done.length} right.
          {surelyWrong > 0 && ` You were sure of ${surelyWrong} that ${surelyWrong === 1 ? "was" : "were"} wrong.`}
        </Text>
      )}
      {wrong.length > 0 && (
        <>
          <Text mt="1">These come back soon:</Text>
          <List.Root ps="5">
            {wrong.map((kind) => (
              <List.Item key={kind}>{KINDS[kind]}</List.Item>
            ))}
          </List.Root>
        </>
      )}
    </Panel>
  );
}
