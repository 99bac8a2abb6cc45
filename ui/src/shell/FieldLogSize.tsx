import { Button, Flex, Heading, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../api/client";
import { fieldLogQuery } from "../api/queries";
import { moment } from "../lib/format";
import { toaster } from "./toaster";

const DAY_MS = 86_400_000;
const SPANS = [
  [365, "a year"],
  [90, "90 days"],
  [30, "30 days"],
] as const;

/** How long the log of the field is, and what is old of it removed for good. */
export function FieldLogSize() {
  const queries = useQueryClient();
  const { data: size } = useQuery(fieldLogQuery);
  const [before, setBefore] = useState<string>();
  const prune = useMutation({
    mutationFn: (before: string) => unwrap(api.DELETE("/api/field-log", { params: { query: { before } } })),
    onSuccess: async (left) => {
      setBefore(undefined);
      queries.setQueryData(fieldLogQuery.queryKey, left);
      await queries.invalidateQueries();
    },
    onError: (error: Error) => toaster.create({ title: error.message, type: "error" }),
  });
  if (!size) return null;
  return (
    <Stack gap="2" data-testid="field-log-size">
      <Heading as="h3" size="md">
        Field log
      </Heading>
      <Text color={size.oldest ? undefined : "muted"}>
        {size.oldest ? `${size.entries} entries since ${moment(size.oldest)}.` : "Nothing was done in the field."}
      </Text>
      {size.oldest && before === undefined && (
        <Flex gap="2" wrap="wrap" align="center" role="group" aria-label="Remove entries older than">
          <Text>Remove what is older than</Text>
          {SPANS.map(([days, name]) => (
            <Button
              key={days}
              variant="outline"
              onClick={() => setBefore(new Date(Date.now() - days * DAY_MS).toISOString())}
            >
              {name}
            </Button>
          ))}
        </Flex>
      )}
      {before !== undefined && (
        <Flex gap="2" wrap="wrap" align="center" role="group" aria-label="Remove old entries">
          <Text w="full">All entries from before {moment(before)} go, and only a copy brings them back.</Text>
          <Button loading={prune.isPending} onClick={() => prune.mutate(before)}>
            Remove for good
          </Button>
          <Button variant="ghost" onClick={() => setBefore(undefined)}>
            Keep them
          </Button>
        </Flex>
      )}
    </Stack>
  );
}
