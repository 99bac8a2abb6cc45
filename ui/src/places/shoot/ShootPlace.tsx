import { Button, Flex, Heading, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, unwrap } from "../../api/client";
import { usePlan } from "../../api/plan";
import { camerasQuery, filtersQuery, presetsQuery, shootsQuery, shotQuery, shotsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { useAllThere } from "../../lib/useAllThere";
import { useTitle } from "../../lib/useTitle";
import { toaster } from "../../shell/toaster";
import { FirstAnswer } from "./FirstAnswer";
import { NewShoot } from "./NewShoot";
import style from "./ShootPlace.module.css";
import { ShotRow } from "./ShotRow";

/** What is planned, and what goes on which camera. */
export function ShootPlace() {
  useTitle("Shoots");
  const cameras = useQuery(camerasQuery);
  const shoots = useQuery(shootsQuery);
  const shots = useQuery(shotsQuery);
  const filters = useQuery(filtersQuery);
  const isAllThere = useAllThere();
  const failed = cameras.error ?? shoots.error ?? shots.error;
  if (failed) {
    return (
      <Stack align="flex-start" gap="3" py="8">
        <Heading as="h1">The shoots cannot be shown</Heading>
        <Text color="muted">{failed.message}</Text>
        <Button onClick={() => [cameras, shoots, shots].map((query) => query.refetch())}>Try again</Button>
      </Stack>
    );
  }
  if (!cameras.data || !shoots.data || !shots.data) {
    return <Skeleton h="300px" aria-busy="true" aria-label="Loading the shoots" />;
  }
  if (cameras.data.length === 0) return <FirstAnswer />;
  return (
    <Stack gap="4" className={isAllThere ? undefined : style.opening}>
      <Heading as="h1" size="2xl">
        Shoots
      </Heading>
      {shoots.data.map((shoot) => (
        <ShootCard
          key={shoot.id}
          shoot={shoot}
          shots={shots.data.filter((shot) => shot.shootId === shoot.id)}
          cameras={cameras.data}
          filters={filters.data ?? []}
        />
      ))}
      <NewShoot />
    </Stack>
  );
}

interface ShootCardProps {
  shoot: Schemas["StoredShoot"];
  shots: Schemas["StoredShot"][];
  cameras: Schemas["StoredCamera"][];
  filters: Schemas["ShownFilter"][];
}

function ShootCard({ shoot, shots, cameras, filters }: ShootCardProps) {
  const add = useAddShot(shoot.id);
  const plan = usePlan(shots.some((s) => s.startsAt) ? shoot.id : undefined);
  const inOrder = shots.toSorted(
    (a, b) => Date.parse(a.startsAt ?? a.createdAt) - Date.parse(b.startsAt ?? b.createdAt),
  );
  return (
    <Stack
      as="section"
      aria-label={shoot.name}
      gap="2"
      bg="panel"
      borderWidth="1px"
      borderColor="edge"
      rounded="xl"
      p={{ base: "3", md: "4" }}
    >
      <Flex gap="3" align="baseline" wrap="wrap">
        <Heading as="h2" size="xl">
          {shoot.name}
        </Heading>
        <Text color="muted">{shoot.place}</Text>
        <Flex gap="2" ms="auto">
          <Button asChild variant="outline">
            <Link to={`/card/${shoot.id}`}>Field card of the day</Link>
          </Button>
          <Button asChild>
            <Link to={`/shoot/${shoot.id}`}>Plan the day</Link>
          </Button>
        </Flex>
      </Flex>
      {shoot.notes && <Text color="muted">{shoot.notes}</Text>}
      {inOrder.length === 0 && <Text color="muted">No shot yet.</Text>}
      <Stack gap="0">
        {inOrder.map((shot) => (
          <ShotRow
            key={shot.id}
            shot={shot}
            planned={plan.of.get(shot.id)}
            isAwaited={Boolean(shot.startsAt) && plan.isAwaited}
            camera={cameras.find((c) => c.id === shot.cameraId)}
            filters={filters}
          />
        ))}
      </Stack>
      <Button alignSelf="flex-start" variant="outline" loading={add.isPending} onClick={() => add.mutate()}>
        New shot
      </Button>
    </Stack>
  );
}

/** Adds a shot that can be answered at once: the camera that was worked on last, as it was asked then, in a usual light. */
function useAddShot(shootId: string) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: async () => {
      const { light } = await queries.fetchQuery(presetsQuery);
      return unwrap(api.POST("/api/keep", { body: { line: light, shootId, name: "New shot" } }));
    },
    onSuccess: (shot) => {
      queries.setQueryData(shotQuery(shot.id).queryKey, shot);
      queries.invalidateQueries({ queryKey: shotsQuery.queryKey });
      navigate(`/shot/${shot.id}`);
    },
    onError: (error) => toaster.create({ title: "The shot was not made", description: error.message }),
  });
}
