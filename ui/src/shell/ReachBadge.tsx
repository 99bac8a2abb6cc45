import { Badge } from "@chakra-ui/react";
import { useReach } from "../api/reach";
import { useSending, useWaiting } from "../offline/fieldLog";

/** That the server is gone, and what waits for it on this device; nothing while all is well. */
export function ReachBadge() {
  useSending();
  const isThere = useReach();
  const waits = useWaiting().length;
  if (isThere && waits === 0) return null;
  return (
    <Badge bg="unknownSoft" color="ink" size="md" role="status" whiteSpace="nowrap" data-testid="reach">
      {isThere ? "" : "offline"}
      {!isThere && waits > 0 && " · "}
      {waits > 0 && `${waits} waiting`}
    </Badge>
  );
}
