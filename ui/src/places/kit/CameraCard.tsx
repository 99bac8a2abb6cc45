import { Box, Flex, IconButton, Text } from "@chakra-ui/react";
import { Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../../api/client";
import { camerasQuery } from "../../api/queries";
import { useDelete } from "../../lib/useDelete";
import { CameraForm } from "./CameraForm";

interface CameraCardProps {
  camera: Schemas["StoredCamera"];
  filters: Schemas["ShownFilter"][];
}

/** One camera in figures; it opens as a form. */
export function CameraCard({ camera, filters }: CameraCardProps) {
  const [isEdited, setEdited] = useState(false);
  const remove = useDelete({
    what: camera.name,
    queryKey: camerasQuery.queryKey,
    remove: () =>
      unwrap(
        api.DELETE("/api/cameras/{id}", { params: { path: { id: camera.id }, query: { version: camera.version } } }),
      ),
    restore: (version) =>
      unwrap(api.POST("/api/cameras/{id}/restore", { params: { path: { id: camera.id }, query: { version } } })),
  });
  const mounted = filters.filter((f) => camera.mounted.includes(f.id)).map((f) => f.title);
  if (isEdited) {
    return (
      <Box gridColumn="1 / -1" borderWidth="1px" borderColor="accent" rounded="lg" p="3">
        <CameraForm camera={camera} onDone={() => setEdited(false)} />
      </Box>
    );
  }
  return (
    <Flex borderWidth="1px" borderColor="edge" rounded="lg" p="3" gap="2" align="flex-start">
      <Box flex="1" minW="0">
        <Text fontWeight="bold">{camera.name}</Text>
        <Text>
          f/{camera.aperture} · ISO {camera.isoBase} to {camera.isoCeiling}
        </Text>
        <Text color="muted" fontSize="sm">
          {camera.rates.join(", ")} fps ·{" "}
          {camera.steps.length > 0 ? `${camera.steps.length} shutter steps` : "any shutter"}
          {mounted.length > 0 && ` · ${mounted.join(", ")} lives on the lens`}
        </Text>
      </Box>
      <IconButton
        variant="ghost"
        minW="44px"
        color="muted"
        aria-label={`Edit ${camera.name}`}
        onClick={() => setEdited(true)}
      >
        <Pencil />
      </IconButton>
      <IconButton
        variant="ghost"
        minW="44px"
        color="muted"
        aria-label={`Delete ${camera.name}`}
        onClick={() => remove.mutate()}
      >
        <Trash2 />
      </IconButton>
    </Flex>
  );
}
