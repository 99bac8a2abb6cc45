import { useEffect, useState } from "react";

/** An address for what is in memory, for as long as it is shown. */
export function useObjectUrl(blob: Blob | undefined): string | undefined {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    if (!blob) return;
    const made = URL.createObjectURL(blob);
    setUrl(made);
    return () => {
      setUrl(undefined);
      URL.revokeObjectURL(made);
    };
  }, [blob]);
  return url;
}
