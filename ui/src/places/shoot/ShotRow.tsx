import { Box, Link as ChakraLink, Flex, IconButton, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { Link } from "react-router";
import { api, type Schemas, unwrap } from "../../api/client";
import type { Planned } from "../../api/plan";
import { shotQuery, shotsQuery } from "../../api/queries";
import { signed } from "../../lib/format";
import { glassName, named, type Piece } from "../../lib/glass";
import { Lights } from "../../lib/Lights";
import { settingWords, stateOf } from "../../lib/option";
import { type State, StateShape } from "../../lib/StateMark";
import { useDelete } from "../../lib/useDelete";
import { planned as at } from "../../lib/zone";
import { forgetShot } from "../../shell/lastShot";

interface ShotRowProps {
  shot: Schemas["StoredShot"];
  /** What the plan of its day says, where it has a time. */
  planned: Planned | undefined;
  /** Whether that is still being made. */
  isAwaited: boolean;
  camera: Schemas["StoredCamera"] | undefined;
  filters: Schemas["ShownFilter"][];
}

/**
 * One shot with the glass it is told: by the plan of its day, which goes by the strongest
 * evidence of the light, else by what is typed.
 */
export function ShotRow({ shot, planned, isAwaited, camera, filters }: ShotRowProps) {
  const told = planned ? ofThePlan(planned) : isAwaited ? AWAITED : ofTheShot(shot, filters);
  const queries = useQueryClient();
  const remove = useDelete({
    what: `“${shot.name}”`,
    queryKey: shotsQuery.queryKey,
    remove: () =>
      unwrap(api.DELETE("/api/shots/{id}", { params: { path: { id: shot.id }, query: { version: shot.version } } })),
    restore: (version) =>
      unwrap(api.POST("/api/shots/{id}/restore", { params: { path: { id: shot.id }, query: { version } } })),
  });
  return (
    <Flex align="center" gap="2" borderTopWidth="1px" borderColor="edge" minH={shot.startsAt && { md: "108px" }}>
      <ChakraLink asChild variant="plain" flex="1" minW="0" color="ink" _hover={{ bg: "accentSoft" }} rounded="md">
        <Link to={`/shot/${shot.id}`}>
          <Flex
            flex="1"
            minW="0"
            gap={{ base: "1", md: "3" }}
            py="2.5"
            px="2"
            direction={{ base: "column", md: "row" }}
            align={{ md: "center" }}
          >
            <Box flex="1.3" minW="0">
              <Text fontWeight="bold">{shot.name}</Text>
              <Text color="muted" fontSize="sm">
                {[at(shot.startsAt), camera?.name ?? `${shot.answer.camera ?? "a camera"} (deleted)`]
                  .filter(Boolean)
                  .join(" · ")}
              </Text>
            </Box>
            <Flex flex="1" minW="0" gap="2" align="flex-start">
              <Box color={told.state} pt="1">
                <StateShape state={told.state} />
              </Box>
              <Box minW="0">
                <Text fontWeight="bold">{told.glass}</Text>
                <Text color="muted" fontSize="sm">
                  {told.state} · {told.words}
                </Text>
                {planned ? <Lights lights={planned.plan.lights} /> : <Text fontSize="sm">{told.light}</Text>}
              </Box>
            </Flex>
          </Flex>
        </Link>
      </ChakraLink>
      <IconButton
        variant="ghost"
        minW="44px"
        color="muted"
        aria-label={`Delete ${shot.name}`}
        onClick={() => {
          forgetShot(shot.id);
          queries.removeQueries({ queryKey: shotQuery(shot.id).queryKey });
          remove.mutate();
        }}
      >
        <Trash2 />
      </IconButton>
    </Flex>
  );
}

interface Told {
  state: State;
  glass: string;
  words: string;
  light?: string;
}

const AWAITED: Told = { state: "unknown", glass: "…", words: "the plan of its day is being made" };

const ofThePlan = ({ plan, glass }: Planned): Told => ({ state: plan.state, glass, words: plan.words });

function ofTheShot(shot: Schemas["StoredShot"], filters: Schemas["ShownFilter"][]): Told {
  const { given, unanswered } = shot.answer;
  if (unanswered) return { state: "unknown", glass: "No answer", words: unanswered };
  const { chosen, settled } = given;
  const pieces = new Map([...named(shot.answer.glass), ...filters.map((f): [string, Piece] => [f.id, f])]);
  return {
    state: stateOf(given),
    glass: settled ? glassName(chosen.filters, pieces, chosen.settings) : "still looking",
    words: `${settingWords(chosen)}${settled ? ` · ${signed(chosen.leftStops)}` : ""}`,
    light: settled ? `${given.reading.text}, ${shot.startsAt ? "as typed" : "as typed: it has no time"}` : "",
  };
}
