import { Button, Flex, Heading, List, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../api/client";
import { binQuery } from "../api/queries";
import type { Schemas } from "../api/schemas";
import { toaster } from "./toaster";

type Binned = Schemas["StoredBinned"];

/** What was deleted: brought back one by one, or removed for good. */
export function Bin() {
  const queries = useQueryClient();
  const [isAsked, setAsked] = useState(false);
  const { data } = useQuery(binQuery);
  const failed = (error: Error) => toaster.create({ title: error.message, type: "error" });
  const restore = useMutation({
    mutationFn: broughtBack,
    onSuccess: () => queries.invalidateQueries(),
    onError: failed,
  });
  const empty = useMutation({
    mutationFn: () => unwrap(api.DELETE("/api/bin")),
    onSuccess: async (left) => {
      setAsked(false);
      queries.setQueryData(binQuery.queryKey, left);
      await queries.invalidateQueries();
    },
    onError: failed,
  });
  const items = data?.items ?? [];
  return (
    <Stack gap="2">
      <Heading as="h3" size="md">
        Bin
      </Heading>
      {items.length === 0 && <Text color="muted">Nothing was deleted.</Text>}
      {items.length > 0 && (
        <>
          <List.Root variant="plain" gap="1" maxH="220px" overflow="auto" aria-label="Bin">
            {items.map((item) => (
              <List.Item key={item.id} display="flex" alignItems="center" gap="2">
                <Text flex="1">
                  {item.name || item.id} <Text as="span">({KINDS[item.kind] ?? item.kind})</Text>
                </Text>
                <Button size="sm" variant="outline" disabled={restore.isPending} onClick={() => restore.mutate(item)}>
                  Bring back
                </Button>
              </List.Item>
            ))}
          </List.Root>
          {isAsked ? (
            <Flex gap="2" wrap="wrap" role="group" aria-label="Empty the bin">
              <Button loading={empty.isPending} onClick={() => empty.mutate()}>
                Remove for good
              </Button>
              <Button variant="ghost" onClick={() => setAsked(false)}>
                Keep it
              </Button>
            </Flex>
          ) : (
            <Button alignSelf="flex-start" variant="ghost" onClick={() => setAsked(true)}>
              Empty the bin
            </Button>
          )}
        </>
      )}
    </Stack>
  );
}

const KINDS: Record<string, string> = {
  shoots: "shoot",
  shots: "shot",
  cameras: "camera",
  rigs: "held",
  filters: "filter",
  packs: "pack",
  "light-readings": "reading",
};

async function broughtBack({ kind, id, version }: Binned): Promise<unknown> {
  const params = { path: { id }, query: { version } };
  switch (kind) {
    case "shoots":
      return unwrap(api.POST("/api/shoots/{id}/restore", { params }));
    case "shots":
      return unwrap(api.POST("/api/shots/{id}/restore", { params }));
    case "cameras":
      return unwrap(api.POST("/api/cameras/{id}/restore", { params }));
    case "rigs":
      return unwrap(api.POST("/api/rigs/{id}/restore", { params }));
    case "packs":
      return unwrap(api.POST("/api/packs/{id}/restore", { params }));
    case "filters":
      return unwrap(api.POST("/api/filters/{id}/restore", { params }));
    default:
      return unwrap(api.POST("/api/light-readings/{id}/restore", { params }));
  }
}
