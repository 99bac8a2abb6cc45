import { Button, Flex, Heading, List, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../api/client";
import { devicesQuery } from "../api/queries";
import type { Schemas } from "../api/schemas";
import { moment } from "../lib/format";
import { toaster } from "./toaster";

/** The devices that are in, each with the way to shut it out. */
export function Devices() {
  const queries = useQueryClient();
  const { data } = useQuery(devicesQuery);
  const revoke = useMutation({
    mutationFn: (name: string) => unwrap(api.DELETE("/api/devices/{name}", { params: { path: { name } } })),
    onSuccess: (left) => queries.setQueryData(devicesQuery.queryKey, left),
    onError: (error) => toaster.create({ title: error.message, type: "error" }),
  });
  if (!data) return null; // not known is not none
  if (data.items.length === 0) return <Text color="muted">No device is in.</Text>;
  return (
    <Stack gap="2">
      <Heading as="h3" size="md">
        Devices that are in
      </Heading>
      <List.Root variant="plain" gap="2" aria-label="Devices that are in">
        {data.items.map((device) => (
          <List.Item key={device.id} display="block">
            <Flex gap="2" align="center">
              <Text flex="1">
                {nameOf(device)} · {device.address}
                <Text as="span" color="muted" display="block" fontSize="sm">
                  last used {moment(device.lastUsed)}, in since {moment(device.since)}
                </Text>
              </Text>
              <Button
                size="sm"
                variant="outline"
                loading={revoke.isPending && revoke.variables === device.id}
                onClick={() => revoke.mutate(device.id)}
              >
                Shut out
              </Button>
            </Flex>
          </List.Item>
        ))}
      </List.Root>
      <Text color="muted" fontSize="sm">
        A device that is shut out lets go of what it keeps as soon as it reaches this machine again.
      </Text>
    </Stack>
  );
}

/** What kind of device it is, as its browser says in brackets; else all that it says. */
const nameOf = ({ agent }: Schemas["StoredDevice"]): string =>
  (/\(([^)]+)/.exec(agent)?.[1] ?? (agent || "a device")).slice(0, 60);
