import { Box, Button, Flex, IconButton, Text } from "@chakra-ui/react";
import { Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { camerasQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { CopyButton } from "../../lib/CopyButton";
import { Drawer } from "../../lib/Drawer";
import { recipeLines } from "../../lib/recipe";
import { useDelete } from "../../lib/useDelete";
import { CameraForm } from "./CameraForm";
import { RigForm } from "./RigForm";

type Rig = Schemas["StoredRig"];

interface CameraCardProps {
  camera: Schemas["StoredCamera"];
  filters: Schemas["ShownFilter"][];
  rigs: readonly Rig[];
}

const HOUSINGS: Record<Rig["housing"], string> = { bare: "bare", frame: "frame", cage: "cage", case: "case" };

/** One camera in figures, with the ways in which it is held; each opens as a form. */
export function CameraCard({ camera, filters, rigs }: CameraCardProps) {
  const [edited, setEdited] = useState<"camera" | "new rig" | Rig | null>(null);
  const done = () => setEdited(null);
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
  const recipe = recipeLines(camera.recipe);
  const assumed = Object.values(camera.sources ?? {}).filter((s) => s === "assumed").length;
  if (edited) {
    return (
      <Box borderWidth="1px" borderColor="accent" rounded="lg" p="3">
        {edited === "camera" ? (
          <CameraForm camera={camera} onDone={done} />
        ) : (
          <RigForm cameraId={camera.id} {...(edited !== "new rig" && { rig: edited })} onDone={done} />
        )}
      </Box>
    );
  }
  return (
    <Flex
      borderWidth="1px"
      borderColor="edge"
      rounded="lg"
      p="2.5"
      columnGap="2"
      rowGap="0"
      align="flex-start"
      alignContent="flex-start"
      wrap="wrap"
    >
      <Box flex="1" minW="0">
        <Text fontWeight="bold">{camera.name}</Text>
        <Text>
          f/{camera.aperture}
          {camera.tNumber !== undefined && ` (T/${camera.tNumber})`} · ISO {camera.isoBase} to {camera.isoCeiling}
        </Text>
        <Text color="muted" fontSize="sm">
          {camera.rates.join(", ")} fps ·{" "}
          {camera.steps.length > 0 ? `${camera.steps.length} shutter steps` : "any shutter"}
          {mounted.length > 0 && ` · ${mounted.join(", ")} always on`}
          {assumed > 0 && ` · ${assumed} values assumed`}
        </Text>
      </Box>
      <Flex>
        <IconButton
          variant="ghost"
          minW="44px"
          color="muted"
          aria-label={`Edit ${camera.name}`}
          onClick={() => setEdited("camera")}
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
      <Flex w="full" gap="2" wrap="wrap" align="center">
        {rigs.map((rig) => (
          <Button
            key={rig.id}
            size="sm"
            variant="outline"
            borderColor="edge"
            color="ink"
            fontWeight="normal"
            aria-label={`Rig ${rig.name} of ${camera.name}`}
            onClick={() => setEdited(rig)}
          >
            {rig.name}
            <Text as="span" color="muted">
              {[HOUSINGS[rig.housing], rig.measures.mount ?? "mount not known"]
                .filter((w) => w !== rig.name)
                .join(", ")}
            </Text>
          </Button>
        ))}
        <Button
          size="sm"
          variant="ghost"
          onClick={() => setEdited("new rig")}
          aria-label={`Add a rig of ${camera.name}`}
        >
          + rig
        </Button>
      </Flex>
      {recipe.length > 0 && (
        <Box w="full">
          <Drawer isPlain heading="Recipe" result={recipe[0]}>
            <Text fontSize="sm" mb="2">
              {recipe.join(" · ")}
            </Text>
            <CopyButton text={[camera.name, ...recipe].join("\n")}>Copy the recipe</CopyButton>
          </Drawer>
        </Box>
      )}
    </Flex>
  );
}
