import { Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { SelectField } from "../../lib/SelectField";
import { useKeepMeasured } from "./useKeepMeasured";

interface KeepWithProps {
  fields: Partial<Schemas["StoredFilterFields"]>;
  note: string;
  /** Hears of the filter that is chosen, to show what is known of it. */
  onFilter?: (filter: Schemas["ShownFilter"] | undefined) => void;
}

/** Saves a measurement with one of the filters. */
export function KeepWith({ fields, note, onFilter }: KeepWithProps) {
  const { filters, keep } = useKeepMeasured();
  const [id, setId] = useState("");
  return (
    <Flex gap="2" align="flex-end" wrap="wrap">
      <SelectField
        label="The filter"
        maxW="260px"
        value={id}
        options={[
          { value: "", name: "choose" },
          ...filters.map((f) => ({ value: f.id, name: [f.title, f.slot].filter(Boolean).join(" · ") })),
        ]}
        onChange={(next) => {
          setId(next);
          onFilter?.(filters.find((f) => f.id === next));
        }}
      />
      <Button disabled={id === ""} loading={keep.isPending} onClick={() => keep.mutate({ id, fields, note })}>
        Save with it
      </Button>
    </Flex>
  );
}
