import { useState } from "react";

/** Whether something has been so at least once: what is opened is made then, and stays. */
export function useOnce(isSo: boolean): boolean {
  const [wasSo, setWasSo] = useState(isSo);
  if (isSo && !wasSo) setWasSo(true);
  return wasSo || isSo;
}
