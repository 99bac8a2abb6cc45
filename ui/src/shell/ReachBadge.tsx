import { useReach } from "../api/reach";
import { useSending, useWaiting } from "../offline/fieldLog";
import style from "./Shell.module.css";

/** That the server is gone, and what waits for it on this device; nothing while all is well. */
export function ReachBadge() {
  useSending();
  const isThere = useReach();
  const waits = useWaiting().length;
  if (isThere && waits === 0) return null;
  return (
    <span className={style.note} role="status" data-testid="reach">
      {isThere ? "" : "offline"}
      {!isThere && waits > 0 && " · "}
      {waits > 0 && `${waits} waiting`}
    </span>
  );
}
