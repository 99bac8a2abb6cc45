import { Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { statusQuery } from "../api/queries";

/** That the data file is damaged, and what to do; nothing while it is sound. */
export function DamageNote() {
  const { data: status } = useQuery(statusQuery);
  if (!status?.damage) return null;
  return (
    <Text role="alert" bg="breaksSoft" color="ink" px="4" py="2">
      The data file is damaged: what is in it can be read, and nothing is stored. Restore a copy under Backups and bin,
      or with <b>pinhole restore</b>.
    </Text>
  );
}
