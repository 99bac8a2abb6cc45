import { useEffect, useState } from "react";

/** Where the service worker lays what another application shared: see public/share-target.js. */
const SHARED = "shared-files";

/**
 * Hears of files that are dropped anywhere, of files and tables that are pasted outside of a
 * field, and of what was shared to the installed page. Returns whether files hang over the page.
 */
export function useComing(onFiles: (files: readonly File[]) => void): boolean {
  const [isOver, setOver] = useState(false);
  useEffect(() => {
    const take = (files: readonly File[]) => files.length > 0 && onFiles(files);
    const over = (event: DragEvent) => {
      if (!event.dataTransfer?.types.includes("Files")) return;
      event.preventDefault(); // or the browser opens the file and leaves the page
      setOver(event.type !== "dragleave" || event.relatedTarget !== null);
    };
    const drop = (event: DragEvent) => {
      if (!event.dataTransfer?.types.includes("Files")) return;
      event.preventDefault();
      setOver(false);
      take([...event.dataTransfer.files]);
    };
    const paste = (event: ClipboardEvent) => {
      if (event.target instanceof Element && event.target.matches("input, textarea, [contenteditable]")) return;
      const { files } = event.clipboardData ?? {};
      if (files?.length) return take([...files]);
      const text = event.clipboardData?.getData("text/plain") ?? "";
      if (text.trim() !== "") take([new File([text], "What was pasted", { type: "text/plain" })]);
    };
    void sharedFiles().then(take);
    const drag = ["dragenter", "dragover", "dragleave"] as const;
    for (const name of drag) window.addEventListener(name, over);
    window.addEventListener("drop", drop);
    window.addEventListener("paste", paste);
    return () => {
      for (const name of drag) window.removeEventListener(name, over);
      window.removeEventListener("drop", drop);
      window.removeEventListener("paste", paste);
    };
  }, [onFiles]);
  return isOver;
}

/** Takes what was shared to the page, once. */
async function sharedFiles(): Promise<File[]> {
  if (!("caches" in window) || !(await caches.has(SHARED))) return [];
  const cache = await caches.open(SHARED);
  const files = await Promise.all(
    (await cache.keys()).map(async (request) => {
      const answer = await cache.match(request);
      const name = decodeURIComponent(answer?.headers.get("X-File-Name") ?? "What was shared");
      return new File(answer ? [await answer.blob()] : [], name);
    }),
  );
  await caches.delete(SHARED);
  return files;
}
