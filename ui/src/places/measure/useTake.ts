import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, type Schemas, unwrap } from "../../api/client";
import { asY4M, readClip } from "../../api/here/clip";
import { measureHere, type Part } from "../../api/here/measure";

interface Asked {
  file: File | undefined;
  /** The shot that it is a take of. */
  shot: Schemas["StoredShot"] | undefined;
  fromS: number;
  forS: number;
}

/** Reads a part of a clip and measures it, again when what is asked changes. */
export function useTake({ file, shot, fromS, forS }: Asked) {
  const running = useRef<AbortController | null>(null);
  const [progress, setProgress] = useState<number>();
  const take = useMutation({
    mutationFn: async (asked: Asked & { file: File }) => {
      running.current?.abort();
      running.current = new AbortController();
      const { signal } = running.current;
      const known = asked.shot
        ? await unwrap(api.GET("/api/shots/{id}/take", { params: { path: { id: asked.shot.id } }, signal }))
        : {};
      const parts = (file: File, request: object): Part[] => [
        { option: "file", file },
        { option: "request", text: JSON.stringify(request) },
        ...(asked.shot
          ? [{ option: "shot", file: new File([JSON.stringify(asked.shot.answer.request)], "shot.json") }]
          : []),
      ];
      const isPlain = (await asked.file.slice(0, 9).text()) === "YUV4MPEG2";
      if (isPlain) return measureHere("take", parts(asked.file, known), signal);
      setProgress(0);
      const clip = await readClip(asked, setProgress, signal).finally(() => setProgress(undefined));
      const { times, bitsPerFrame, originalWidth: widthPx } = clip;
      return measureHere("take", parts(asY4M(clip), { ...known, times, bitsPerFrame, widthPx }), signal);
    },
  });
  const { mutate } = take;
  useEffect(() => {
    if (file) mutate({ file, shot, fromS, forS });
  }, [file, shot, fromS, forS, mutate]);
  return { ...take, progress, cancel: () => running.current?.abort() };
}
