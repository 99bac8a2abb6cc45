import { Flex, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { TickBox } from "../../lib/TickBox";

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
          <TickBox
            key={camera.id}
            isOn={value.includes(camera.id)}
            onChange={(isOn) => onChange(isOn ? [...value, camera.id] : value.filter((id) => id !== camera.id))}
          >
            {camera.name}
          </TickBox>
        ))}
      </Flex>
    </Stack>
  );
}
