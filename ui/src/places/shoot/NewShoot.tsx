import { Button, Flex } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { shootsQuery } from "../../api/queries";
import { faultsOf } from "../../lib/faults";
import { TextField } from "../../lib/TextField";

/** Adds a shoot by its name. */
export function NewShoot() {
  const [name, setName] = useState("");
  const queries = useQueryClient();
  const add = useMutation({
    mutationFn: () => unwrap(api.POST("/api/shoots", { body: { name } })),
    onSuccess: () => {
      setName("");
      return queries.invalidateQueries({ queryKey: shootsQuery.queryKey });
    },
  });
  const fault = faultsOf(add.error)("name") ?? add.error?.message;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <Flex gap="2" align="flex-start" maxW="480px">
        <TextField
          label="A new shoot"
          value={name}
          onChange={setName}
          fault={fault}
          placeholder="Saturday at the lake"
          maxLength={80}
        />
        <Button type="submit" mt="7" variant="outline" loading={add.isPending}>
          Add shoot
        </Button>
      </Flex>
    </form>
  );
}
