import { Button, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { camerasQuery, rigsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { SelectField } from "../../lib/SelectField";
import { type Kept, useKeepMeasured } from "./useKeepMeasured";

interface KeepWithProps extends Pick<Kept, "fields" | "image" | "note"> {
  /** Hears of the filter that is chosen, to show what is known of it. */
  onFilter?: (filter: Schemas["ShownFilter"] | undefined) => void;
}

/** Saves a measurement with one of the filters, and the camera it was on where it hangs on that. */
export function KeepWith({ fields, image, note, onFilter }: KeepWithProps) {
  const { filters, keep } = useKeepMeasured();
  const rigs = useRigNames();
  const [filterId, setFilterId] = useState("");
  const [rigId, setRigId] = useState("");
  const [savedNote, setSavedNote] = useState("");
  return (
    <Flex gap="2" align="flex-end" wrap="wrap">
      <SelectField
        label="The filter"
        maxW="260px"
        value={filterId}
        options={[
          { value: "", name: "choose" },
          ...filters.map((f) => ({ value: f.id, name: [f.title, f.slot].filter(Boolean).join(" · ") })),
        ]}
        onChange={(next) => {
          setFilterId(next);
          onFilter?.(filters.find((f) => f.id === next));
        }}
      />
      {image && (
        <SelectField
          label="on"
          maxW="260px"
          value={rigId}
          options={[{ value: "", name: "every camera" }, ...rigs]}
          onChange={setRigId}
        />
      )}
      <Button
        disabled={filterId === "" || savedNote === note + filterId + rigId}
        loading={keep.isPending}
        onClick={() =>
          keep.mutate(
            [{ filterId, note, ...(fields && { fields }), ...(image && { image }), ...(rigId && { rigId }) }],
            { onSuccess: () => setSavedNote(note + filterId + rigId) },
          )
        }
      >
        Save with it
      </Button>
    </Flex>
  );
}

/** Every way in which a camera is held, by name. */
export function useRigNames(): { value: string; name: string }[] {
  const { data: rigs = [] } = useQuery(rigsQuery);
  const { data: cameras = [] } = useQuery(camerasQuery);
  return rigs.map((r) => ({
    value: r.id,
    name: `${cameras.find((c) => c.id === r.cameraId)?.name ?? ""}, ${r.name}`,
  }));
}
