import { Button, Flex, Heading, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, Navigate, useNavigate, useParams } from "react-router";
import { Problem } from "../../api/client";
import { shootsQuery } from "../../api/queries";
import { useTitle } from "../../lib/useTitle";
import { clockIn, dayIn } from "../../lib/zone";
import { CameraTabs } from "./CameraTabs";
import { ChecksSheet } from "./ChecksSheet";
import { DrillSheet } from "./DrillSheet";
import { LogSheet } from "./LogSheet";
import { lastCard, noteCard } from "./lastCard";
import type { Open } from "./open";
import { PassageSheet } from "./PassageSheet";
import { RemeterSheet } from "./RemeterSheet";
import { ThumbBar } from "./ThumbBar";
import { TurnView } from "./TurnView";
import { useAwake } from "./useAwake";
import { type CardWork, type Turn, useCardWork } from "./useCardWork";
import { useSwapAlarm } from "./useSwapAlarm";

/** The card of the shoot that was open last, or of the newest. */
export function CardStart() {
  const { data: shoots, error } = useQuery(shootsQuery);
  if (!shoots) return error ? <Text py="8">{error.message}</Text> : <Opening />;
  const shoot = lastCard(shoots);
  if (shoot) return <Navigate to={`/card/${shoot.id}`} replace />;
  return (
    <Stack align="flex-start" gap="3" py="8">
      <Heading as="h1">No shoot yet</Heading>
      <Text color="muted">The field card shows what to set, check and do on the day of a shoot.</Text>
      <Button asChild>
        <Link to="/shoot">Plan a shoot</Link>
      </Button>
    </Stack>
  );
}

const Opening = () => <Skeleton h="300px" aria-busy="true" aria-label="Opening the field card" />;

/** In the field: what to set, what to check, what comes next, what if it goes wrong. */
export function CardPlace() {
  const { id = "" } = useParams();
  const { work, error } = useCardWork(id);
  useTitle(work?.card.shoot.name, "Field card");
  const navigate = useNavigate();
  // Of a card that is not shown, as to a device that was shut out, nothing is kept.
  const isShown = work !== undefined;
  useEffect(() => {
    if (isShown) noteCard(id);
  }, [id, isShown]);
  if (!work) {
    if (!error) return <Opening />;
    const isGone = error instanceof Problem && error.status === 404;
    return (
      <Stack align="flex-start" gap="3" py="8">
        <Heading as="h1">The field card cannot be shown</Heading>
        <Text color="muted">{isGone ? "This shoot is not there any more." : error.message}</Text>
        <Button onClick={() => navigate("/shoot")}>To the shoots</Button>
      </Stack>
    );
  }
  return <Card key={id} work={work} />;
}

function Card({ work }: { work: CardWork }) {
  const { answer, card, zone } = work;
  const [camera, setCamera] = useState<string>();
  const [chosen, setChosen] = useState<string>();
  const [open, setOpen] = useState<Open>(null);
  useAwake();
  useSwapAlarm(answer.cameras, work.isAhead ? Number.NaN : work.shownAt, zone);
  // Of the cameras the one whose turn is on, or comes first.
  const of =
    answer.cameras.find((c) => c.cameraId === camera) ??
    answer.cameras.find((c) => c.turns[c.current]?.when === "on") ??
    answer.cameras.toSorted((a, b) => startOf(a) - startOf(b))[0];
  const found = of?.turns.findIndex((t) => placeOf(t) === chosen) ?? -1;
  const index = found < 0 ? (of?.current ?? 0) : found;
  const turn = of?.turns[index];
  const close = (isOpen: boolean) => !isOpen && setOpen(null);
  if (!of || !turn) {
    return (
      <Stack align="flex-start" gap="3" py="8">
        <Heading as="h1">{card.shoot.name}</Heading>
        <Text>It has no shot with a light yet.</Text>
        <Button asChild>
          <Link to={`/shoot/${card.shoot.id}`}>Plan the day</Link>
        </Button>
      </Stack>
    );
  }
  return (
    <Stack gap="3" maxW="760px" mx="auto">
      <Heading as="h1" srOnly>
        Field card: {card.shoot.name}
      </Heading>
      {work.isAhead && <AsAt work={work} />}
      <TurnView
        of={of}
        index={index}
        zone={zone}
        shownAt={work.shownAt}
        onDrill={(name) => setOpen({ sheet: "drill", name })}
        onPassage={() => setOpen({ sheet: "passage" })}
        onChecks={() => setOpen({ sheet: "checks" })}
      />
      <ThumbBar turn={turn} work={work} onOpen={setOpen}>
        <CameraTabs
          cameras={answer.cameras}
          chosen={of.cameraId}
          onChoose={(id) => {
            setCamera(id);
            setChosen(undefined);
          }}
          before={of.turns[index - 1] && (() => setChosen(placeOf(of.turns[index - 1] as Turn)))}
          after={of.turns[index + 1] && (() => setChosen(placeOf(of.turns[index + 1] as Turn)))}
        />
      </ThumbBar>
      <ChecksSheet work={work} turn={turn} isOpen={open?.sheet === "checks"} onOpen={close} />
      {open?.sheet === "remeter" && <RemeterSheet work={work} turn={turn} camera={of.cameraId} onOpen={close} />}
      {open?.sheet === "passage" && <PassageSheet work={work} turn={turn} camera={of.cameraId} onOpen={close} />}
      <DrillSheet
        drills={turn.drills}
        name={open?.sheet === "drill" ? open.name : null}
        onName={(name) => setOpen({ sheet: "drill", name })}
        onOpen={close}
      />
      <LogSheet work={work} turn={turn} isOpen={open?.sheet === "log"} onOpen={close} />
    </Stack>
  );
}

/** Which turn it is, whatever glass is on. */
const placeOf = (turn: Turn): string => `${turn.shot}/${turn.pack}`;

const startOf = (c: CardWork["answer"]["cameras"][number]): number => Date.parse(c.turns[c.current]?.from ?? "");

/** That the card is shown as at another instant, and the way to others and back. */
function AsAt({ work }: { work: CardWork }) {
  const { shownAt, zone, showAt } = work;
  const step = (minutes: number) => showAt(shownAt + minutes * 60_000);
  return (
    <Flex
      gap="1"
      align="center"
      bg="accentSoft"
      rounded="lg"
      ps="3"
      role="status"
      _print={{ display: "none" }}
      aria-label="Shown as at another time"
    >
      <Text flex="1" fontSize="sm">
        As at{" "}
        <b>
          {dayIn(shownAt, zone)}, {clockIn(shownAt, zone)}
        </b>
      </Text>
      <Button size="sm" variant="ghost" onClick={() => step(-15)} aria-label="15 minutes earlier">
        −15
      </Button>
      <Button size="sm" variant="ghost" onClick={() => step(15)} aria-label="15 minutes later">
        +15
      </Button>
      <Button size="sm" variant="ghost" onClick={() => showAt(Date.now())}>
        Now
      </Button>
    </Flex>
  );
}
