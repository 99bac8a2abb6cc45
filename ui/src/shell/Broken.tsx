import { Button, Code, Flex, Heading, Link, Stack, Text } from "@chakra-ui/react";
import { useEffect } from "react";
import { ErrorBoundary, type FallbackProps } from "react-error-boundary";
import { useLocation } from "react-router";

/** What keeps a fault in one place from taking the rest of the page with it. */
export function Guarded({ children }: { children: React.ReactNode }) {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary FallbackComponent={Broken} resetKeys={[pathname]}>
      {children}
    </ErrorBoundary>
  );
}

/** After an upgrade the parts of an older page are gone from the server: one reload brings the new ones. */
const RELOADED = "pinhole.reloaded";
const isGone = (error: unknown): boolean =>
  error instanceof Error && /dynamically imported module|Importing a module script failed/i.test(error.message);

function Broken({ error, resetErrorBoundary }: FallbackProps) {
  const gone = isGone(error);
  useEffect(() => {
    if (!gone || sessionStorage.getItem(RELOADED) === location.pathname) return;
    sessionStorage.setItem(RELOADED, location.pathname);
    location.reload();
  }, [gone]);
  return (
    <Stack gap="3" py="6" maxW="640px" role="alert">
      <Heading as="h1" size="xl">
        This place broke
      </Heading>
      <Text>
        What you typed is kept on this device, and what was stored is stored. Try again, go to another place, or reload
        the page.
      </Text>
      <Code p="2" whiteSpace="pre-wrap">
        {error instanceof Error ? error.message : String(error)}
      </Code>
      <Flex gap="2">
        <Button onClick={resetErrorBoundary}>Try again</Button>
        <Button variant="outline" onClick={() => location.reload()}>
          Reload
        </Button>
      </Flex>
    </Stack>
  );
}

/** An address at which there is nothing. */
export function Nothing() {
  const { pathname } = useLocation();
  return (
    <Stack gap="3" py="6" maxW="640px">
      <Heading as="h1" size="xl">
        There is nothing here
      </Heading>
      <Text>
        No place has the address <Code>{pathname}</Code>.
      </Text>
      <Link href="/shoot" color="accent" fontWeight="bold">
        To the shoots
      </Link>
    </Stack>
  );
}
