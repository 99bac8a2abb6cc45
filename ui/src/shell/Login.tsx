import { Button, Code, Heading, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Problem, unwrap } from "../api/client";
import { sessionQuery } from "../api/queries";
import { TextField } from "../lib/TextField";

/** Lets a telephone in by the passphrase that the server printed. */
export function Login() {
  const [passphrase, setPassphrase] = useState("");
  const queries = useQueryClient();
  const enter = useMutation({
    mutationFn: () => unwrap(api.POST("/api/session", { body: { passphrase } })),
    onSuccess: (session) => {
      queries.setQueryData(sessionQuery.queryKey, session);
      void queries.invalidateQueries();
    },
  });
  const { data: session } = useQuery(sessionQuery);
  const wrong = enter.error instanceof Problem && enter.error.status === 422;
  return (
    <Stack
      as="form"
      gap="4"
      maxW="420px"
      mx="auto"
      py="8"
      onSubmit={(e) => {
        e.preventDefault();
        enter.mutate();
      }}
    >
      <Heading as="h1" size="2xl">
        Your passphrase
      </Heading>
      <Text>It was printed where the server was started. What you did on this device waits until you are in.</Text>
      {session?.fingerprint && (
        <Text color="muted" fontSize="sm">
          On the machine's screen stands the same fingerprint of its certificate: <Code>{session.fingerprint}</Code>
        </Text>
      )}
      <TextField
        label="Passphrase"
        value={passphrase}
        onChange={setPassphrase}
        fault={enter.error ? (wrong ? "This is not the passphrase." : enter.error.message) : undefined}
        isLarge
      />
      <Button type="submit" size="lg" loading={enter.isPending} disabled={passphrase.trim() === ""}>
        Enter
      </Button>
    </Stack>
  );
}
