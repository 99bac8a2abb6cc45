import { Button, Heading, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { Problem } from "../../api/client";
import { shotQuery } from "../../api/queries";
import { useTitle } from "../../lib/useTitle";
import { forgetShot } from "../../shell/lastShot";
import { UNDONE } from "../../shell/useUndo";
import { GlassDrag } from "./GlassDrag";
import { ShotBench } from "./ShotBench";

/** For this shot: which glass, which shutter, and what gives way? */
export function ShotPlace() {
  const { id = "" } = useParams();
  const { data: shot, error, refetch } = useQuery(shotQuery(id));
  useTitle(shot?.name, "Shot");
  // A shot that was put back as it was is taken up anew.
  const [undone, setUndone] = useState(0);
  useEffect(() => {
    const listen = (event: Event) => {
      if ((event as CustomEvent<string>).detail === `/api/shots/${id}`) setUndone((n) => n + 1);
    };
    window.addEventListener(UNDONE, listen);
    return () => window.removeEventListener(UNDONE, listen);
  }, [id]);
  const isGone = (error instanceof Problem && error.status === 404) || Boolean(shot?.deletedAt);
  useEffect(() => {
    if (isGone) forgetShot(id);
  }, [isGone, id]);
  if (isGone) {
    return (
      <Stack align="flex-start" gap="3" py="8">
        <Heading as="h1">There is no such shot</Heading>
        <Text color="muted">
          It may have been deleted. Deleted shots can be brought back right after deleting them.
        </Text>
        <Button asChild>
          <Link to="/shoot">To the shots</Link>
        </Button>
      </Stack>
    );
  }
  if (error) {
    return (
      <Stack align="flex-start" gap="3" py="8">
        <Heading as="h1">The shot cannot be shown</Heading>
        <Text color="muted">{error.message}</Text>
        <Button onClick={() => refetch()}>Try again</Button>
      </Stack>
    );
  }
  if (!shot) {
    return (
      <Stack gap="3" aria-busy="true" aria-label="Loading the shot">
        <Skeleton h="44px" w="300px" />
        <Skeleton h="260px" />
        <Skeleton h="200px" />
      </Stack>
    );
  }
  return (
    <GlassDrag>
      <ShotBench key={`${shot.id} ${undone}`} shot={shot} />
    </GlassDrag>
  );
}
