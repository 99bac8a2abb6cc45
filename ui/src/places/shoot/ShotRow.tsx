import { Box, Link as ChakraLink, Flex, IconButton, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { Link } from "react-router";
import { api, type Schemas, unwrap } from "../../api/client";
import { shotQuery, shotsQuery } from "../../api/queries";
import { planned, signed } from "../../lib/format";
import { glassName, named, type Piece } from "../../lib/glass";
import { settingWords, stateOf } from "../../lib/option";
import { StateShape } from "../../lib/StateMark";
import { useDelete } from "../../lib/useDelete";
import { forgetShot } from "../../shell/lastShot";

interface ShotRowProps {
  shot: Schemas["StoredShot"];
  camera: Schemas["StoredCamera"] | undefined;
  filters: Schemas["ShownFilter"][];
}

/** One shot with the glass it was told. */
export function ShotRow({ shot, camera, filters }: ShotRowProps) {
  const { chosen, settled } = shot.answer.given;
  const state = stateOf(shot.answer.given);
  const glass = glassName(
    chosen.filters,
    new Map([...named(shot.answer.glass), ...filters.map((f): [string, Piece] => [f.id, f])]),
    chosen.settings,
  );
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
    <Flex align="center" gap="2" borderTopWidth="1px" borderColor="edge">
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
                {[planned(shot.startsAt), camera?.name ?? `${shot.answer.camera ?? "a camera"} (deleted)`]
                  .filter(Boolean)
                  .join(" · ")}
              </Text>
            </Box>
            <Flex flex="1" minW="0" gap="2" align="center">
              <Box color={state}>
                <StateShape state={state} />
              </Box>
              <Box minW="0">
                <Text fontWeight="bold">{settled ? glass : "still looking"}</Text>
                <Text color="muted" fontSize="sm">
                  {settingWords(chosen)} · {settled ? `${signed(chosen.leftStops)} · ` : ""}
                  {state}
                </Text>
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
