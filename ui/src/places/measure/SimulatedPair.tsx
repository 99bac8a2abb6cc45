import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { filtersQuery } from "../../api/queries";
import { SelectField } from "../../lib/SelectField";
import type { Target } from "./session/steps";

/** Where nothing was shot yet: frames of the simulated camera without and with a filter of the kit, as files. */
export function SimulatedPair({ target }: { target: Target }) {
  const { data: filters = [] } = useQuery(filtersQuery);
  const [chosen, setChosen] = useState("");
  const id = chosen || (filters[0]?.id ?? "");
  const href = `/api/sim/target/${target}`;
  return (
    <Stack align="flex-start" gap="2">
      <Text color="muted">Choose both frames to see the result here, or try it with simulated ones.</Text>
      <Flex gap="2" align="flex-end" wrap="wrap">
        <Button asChild variant="outline">
          <a href={href} download>
            Download without
          </a>
        </Button>
        {id && (
          <>
            <SelectField
              label="Through"
              maxW="200px"
              value={id}
              options={filters.map((f) => ({ value: f.id, name: [f.title, f.slot].filter(Boolean).join(" · ") }))}
              onChange={setChosen}
            />
            <Button asChild variant="outline">
              <a href={`${href}?filterId=${id}&frame=1`} download>
                Download with
              </a>
            </Button>
          </>
        )}
      </Flex>
    </Stack>
  );
}
