import { Checkbox, Flex, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/client";

interface GoesOnProps {
  cameras: readonly Schemas["StoredCamera"][];
  value: readonly string[];
  onChange: (ids: string[]) => void;
}

/** The cameras a filter is said to go on. */
export function GoesOn({ cameras, value, onChange }: GoesOnProps) {
  return (
    <Stack gap="1" role="group" aria-label="Goes on">
      <Text fontSize="sm" fontWeight="medium" color="muted">
        Goes on
      </Text>
      <Flex gap="3" wrap="wrap">
        {cameras.map((camera) => (
          <Checkbox.Root
            key={camera.id}
            checked={value.includes(camera.id)}
            onCheckedChange={(e) =>
              onChange(e.checked ? [...value, camera.id] : value.filter((id) => id !== camera.id))
            }
            minH="44px"
          >
            <Checkbox.HiddenInput />
            <Checkbox.Control
              borderColor="muted"
              _checked={{ bg: "accent", borderColor: "accent", color: "onAccent" }}
            />
            <Checkbox.Label>{camera.name}</Checkbox.Label>
          </Checkbox.Root>
        ))}
      </Flex>
    </Stack>
  );
}
