import { Button, Stack, Text } from "@chakra-ui/react";

/** What stands where nothing was measured yet: a made-up file to try it with. */
export function StandIn({ href, name, says }: { href: string; name: string; says: string }) {
  return (
    <Stack align="flex-start" gap="2">
      <Text color="muted">{says}</Text>
      <Button asChild variant="outline">
        <a href={href} download>
          Download {name}
        </a>
      </Button>
    </Stack>
  );
}
