import { Box, Button, Link as ChakraLink, Flex, Grid, Heading, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Navigate, NavLink, useParams } from "react-router";
import { camerasQuery, filtersQuery, rigsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Panel } from "../../lib/Panel";
import { useTitle } from "../../lib/useTitle";
import { CameraCard } from "./CameraCard";
import { CameraForm } from "./CameraForm";
import { Coverage } from "./Coverage";
import { FilterForm } from "./FilterForm";
import { FilterTable } from "./FilterTable";
import { FitTable } from "./FitTable";
import { KitFile } from "./KitFile";
import style from "./KitPlace.module.css";
import { Labels } from "./Labels";
import { Sets } from "./Sets";

interface PartProps {
  cameras: Schemas["StoredCamera"][];
  filters: Schemas["ShownFilter"][];
}

/** The parts of the kit, each at an address of its own. */
const PARTS: Record<string, { name: string; note: string; show: (props: PartProps) => React.ReactNode }> = {
  fit: {
    name: "Fit",
    note: "what fits what, by test and by measure",
    show: (props) => <FitTable {...props} />,
  },
  coverage: {
    name: "Coverage",
    note: "which light your filters cover, and what is missing",
    show: ({ cameras }) => <Coverage cameras={cameras} />,
  },
  sets: { name: "Sets", note: "sets of filters side by side", show: ({ cameras }) => <Sets cameras={cameras} /> },
  labels: { name: "Labels", note: "for the slots of the case", show: () => <Labels /> },
};

/** What somebody owns: cameras, and the glass that goes on them. */
export function KitPlace() {
  const { part = "" } = useParams();
  useTitle(PARTS[part]?.name, "Kit");
  const cameras = useQuery(camerasQuery);
  const filters = useQuery(filtersQuery);
  const rigs = useQuery(rigsQuery); // each camera shows its own: it would grow with them
  const failed = cameras.error ?? filters.error;
  if (part !== "" && !PARTS[part]) return <Navigate to="/kit" replace />;
  if (failed) return <Text py="8">The kit cannot be shown. {failed.message}</Text>;
  if (!cameras.data || !filters.data || rigs.isLoading)
    return <Skeleton h="300px" aria-busy="true" aria-label="Loading the kit" />;
  const chosen = PARTS[part];
  const kit = { cameras: cameras.data, filters: filters.data };
  return (
    <Stack gap="2">
      <Flex gap="4" align="center" wrap="wrap">
        <Heading as="h1" size="2xl">
          Kit
        </Heading>
        <Flex as="nav" aria-label="Parts of the kit" gap="1" wrap="wrap">
          <PartLink to="/kit" name="Gear" />
          {Object.entries(PARTS).map(([key, { name }]) => (
            <PartLink key={key} to={`/kit/${key}`} name={name} />
          ))}
        </Flex>
      </Flex>
      {!chosen && <Gear {...kit} />}
      {chosen && (
        <Panel heading={chosen.name} note={chosen.note}>
          {kit.cameras.length > 0 && kit.filters.length > 0 ? (
            chosen.show(kit)
          ) : (
            <Text color="muted">Add a camera and a filter first, under Gear.</Text>
          )}
        </Panel>
      )}
    </Stack>
  );
}

function PartLink({ to, name }: { to: string; name: string }) {
  return (
    <ChakraLink asChild variant="plain">
      <NavLink to={to} end>
        {({ isActive }) => (
          <Box
            as="span"
            px={{ base: "2.5", md: "4" }}
            py="2.5"
            rounded="lg"
            bg={isActive ? "accent" : "panel"}
            color={isActive ? "onAccent" : "accent"}
            borderWidth="1px"
            borderColor={isActive ? "accent" : "edge"}
            fontWeight="semibold"
          >
            {name}
          </Box>
        )}
      </NavLink>
    </ChakraLink>
  );
}

/** On a desktop the kit fits the window, each column scrolling by itself. */

/** Cameras and filters themselves. */
function Gear({ cameras, filters }: PartProps) {
  const { data: rigs } = useQuery(rigsQuery);
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,5fr) minmax(0,7fr)" }} gap="2" alignItems="start">
      <Panel isDense heading="Cameras" note="one aperture each" className={style.column} tabIndex={0}>
        <Stack gap="2" mb="3">
          {cameras.map((camera) => (
            <CameraCard
              key={camera.id}
              camera={camera}
              filters={filters}
              rigs={(rigs ?? []).filter((r) => r.cameraId === camera.id)}
            />
          ))}
        </Stack>
        <NewCamera isFirst={cameras.length === 0} />
      </Panel>
      {cameras.length > 0 && (
        <Panel
          isDense
          heading="Filters"
          note="type each label as it stands on the ring"
          className={style.column}
          tabIndex={0}
        >
          <FilterForm cameras={cameras} />
          <FilterTable filters={filters} cameras={cameras} />
          <Box mt="3">
            <KitFile />
          </Box>
        </Panel>
      )}
    </Grid>
  );
}

/** The form for another camera stays out of the way; that for the first one is open. */
function NewCamera({ isFirst }: { isFirst: boolean }) {
  const [isOpen, setOpen] = useState(false);
  if (isFirst) return <CameraForm isFirst />;
  if (isOpen) return <CameraForm onDone={() => setOpen(false)} />;
  return (
    <Button variant="outline" onClick={() => setOpen(true)}>
      Add a camera
    </Button>
  );
}
