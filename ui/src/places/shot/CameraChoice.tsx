import { Flex } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { SelectField } from "../../lib/SelectField";
import type { Bench } from "./draft";

interface CameraChoiceProps {
  bench: Bench;
  cameras: readonly Schemas["StoredCamera"][];
  onCamera: (id: string) => void;
  onRig: (id: string) => void;
}

/** Which camera, and how it is held. */
export function CameraChoice({ bench, cameras, onCamera, onRig }: CameraChoiceProps) {
  return (
    <Flex gap="3" wrap="wrap">
      <SelectField
        label="Camera"
        flex="2"
        minW="200px"
        value={bench.camera.id}
        options={cameraOptions(bench, cameras)}
        onChange={onCamera}
      />
      {bench.rigs.length > 1 && (
        <SelectField
          label="Held"
          flex="1"
          minW="140px"
          value={bench.rig.id}
          options={bench.rigs.map((r) => ({ value: r.id, name: r.name }))}
          onChange={onRig}
        />
      )}
    </Flex>
  );
}

/** The cameras, and the shot's own where it was deleted. */
function cameraOptions(bench: Bench, cameras: readonly Schemas["StoredCamera"][]) {
  const there = cameras.map((c) => ({ value: c.id, name: c.name }));
  const own = bench.camera;
  return cameras.some((c) => c.id === own.id) ? there : [{ value: own.id, name: `${own.name} (deleted)` }, ...there];
}
