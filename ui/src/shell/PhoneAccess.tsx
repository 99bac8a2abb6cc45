import { Box, Code, List, QrCode, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../api/client";
import { statusQuery } from "../api/queries";
import { SelectField } from "../lib/SelectField";
import { Devices } from "./Devices";

const DAYS = [1, 3, 7, 14, 20].map((days) => ({ value: String(days), name: days === 1 ? "a day" : `${days} days` }));

/** A code to photograph with a telephone, or how to let telephones in. */
export function PhoneAccess() {
  const { data: status } = useQuery(statusQuery);
  const queries = useQueryClient();
  const keep = useMutation({
    mutationFn: (days: number) => unwrap(api.POST("/api/devices/keep", { body: { days } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: statusQuery.queryKey }),
  });
  const addresses = status?.shared ?? [];
  return (
    <>
      {addresses.length === 0 ? (
        <Text>
          This server answers this machine alone. Started as <Code>pinhole serve --lan</Code>, it also answers
          telephones on the same network, over HTTPS and behind a passphrase.
        </Text>
      ) : (
        <Stack gap="4" pb="4">
          {addresses.map((address) => (
            <Stack key={address} align="center" gap="1">
              <Box bg="white" p="3" rounded="md">
                <QrCode.Root value={address} size="xl">
                  <QrCode.Frame color="black">
                    <QrCode.Pattern />
                  </QrCode.Frame>
                </QrCode.Root>
              </Box>
              <Code fontSize="lg">{address}</Code>
            </Stack>
          ))}
          <List.Root as="ol" ps="5" gap="1">
            <List.Item>Photograph the code with a telephone on the same network.</List.Item>
            <List.Item>
              It warns of a certificate it does not know: that is this machine's own, if its fingerprint there is{" "}
              <Code>{status?.fingerprint}</Code>. Go on.
            </List.Item>
            <List.Item>Give the passphrase that was printed when the server was started.</List.Item>
            <List.Item>
              To work offline there, install and trust the certificate at <Code>/ca.crt</Code>. It can vouch for private
              addresses alone.
            </List.Item>
          </List.Root>
          {status?.atDesk && (
            <>
              <Devices />
              <SelectField
                label="A telephone keeps what it was shown for"
                maxW="320px"
                value={String(status.keepDays)}
                options={DAYS}
                onChange={(days) => keep.mutate(Number(days))}
              />
            </>
          )}
        </Stack>
      )}
    </>
  );
}
