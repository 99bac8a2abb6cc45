import { Button, Text } from "@chakra-ui/react";
import { askToNotify, useNotifyPermission } from "../../lib/notify";

/** Asks once whether swaps may be notified of; gone where that is settled. */
export function RemindButton() {
  const permission = useNotifyPermission();
  if (permission === "denied") return <Text color="muted">Notifications are off in this browser.</Text>;
  if (permission !== "default") return null;
  return (
    <Button mt="1" variant="outline" onClick={() => void askToNotify()}>
      Notify me 10 minutes before
    </Button>
  );
}
