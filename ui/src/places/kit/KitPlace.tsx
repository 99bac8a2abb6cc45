import { Box, Button, Grid, Heading, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { camerasQuery, filtersQuery } from "../../api/queries";
import { Panel } from "../../lib/Panel";
import { CameraCard } from "./CameraCard";
import { CameraForm } from "./CameraForm";
import { Coverage } from "./Coverage";
import { FilterForm } from "./FilterForm";
import { FilterTable } from "./FilterTable";
import { FitTable } from "./FitTable";
import { KitFile } from "./KitFile";

/** What I own: cameras, and the glass that goes on them. */
export function KitPlace() {
  const cameras = useQuery(camerasQuery);
  const filters = useQuery(filtersQuery);
  const failed = cameras.error ?? filters.error;
  if (failed) return <Text py="8">The kit cannot be shown. {failed.message}</Text>;
  if (!cameras.data || !filters.data) return <Skeleton h="300px" aria-busy="true" aria-label="Loading the kit" />;
  return (
    <Stack gap="4">
      <Heading as="h1" size="2xl">
        Kit
      </Heading>
      <Panel heading="Cameras" note="one aperture each, so light is traded with shutter, ISO and glass">
        <Grid templateColumns={{ base: "1fr", md: "repeat(2, 1fr)", xl: "repeat(3, 1fr)" }} gap="2" mb="3">
          {cameras.data.map((camera) => (
            <CameraCard key={camera.id} camera={camera} filters={filters.data} />
          ))}
        </Grid>
        <NewCamera isFirst={cameras.data.length === 0} />
      </Panel>
      {cameras.data.length > 0 && (
        <Panel heading="Glass" note="type each label as it stands on the ring">
          <FilterForm cameras={cameras.data} />
          <FilterTable filters={filters.data} cameras={cameras.data} />
          <Box mt="3">
            <KitFile />
          </Box>
        </Panel>
      )}
      {cameras.data.length > 0 && filters.data.length > 0 && (
        <Panel heading="Fit" note="what was tried on what, and what was not">
          <FitTable cameras={cameras.data} filters={filters.data} />
        </Panel>
      )}
      {cameras.data.length > 0 && filters.data.length > 0 && (
        <Panel heading="Coverage" note="which light this glass serves, and what is missing">
          <Coverage cameras={cameras.data} />
        </Panel>
      )}
    </Stack>
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
