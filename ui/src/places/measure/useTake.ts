import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, unwrap } from "../../api/client";
import { asY4M, Clip, type ClipFacts, spread, stretch } from "../../api/here/clip";
import { type Measured, measureHere, type Part } from "../../api/here/measure";
import type { Schemas } from "../../api/schemas";

type Take = Measured["take"];

interface Asked {
  file: File | undefined;
  /** The shot that it is a take of. */
  shot: Schemas["StoredShot"] | undefined;
  fromS: number;
  /** Undefined: windows spread over the whole of it. */
  forS: number | undefined;
}

/** A clip as far as it was measured. */
export interface TakeSoFar {
  take: Take;
  facts?: ClipFacts;
  /** When each frame is shown, seconds from its beginning; none for a clip without a clock. */
  times: readonly number[];
  /** Small pictures of it, one a window. */
  pictures: readonly Blob[];
}

/** How far a measurement is. */
export interface TakeProgress {
  decoded: number;
  measured: number;
  windows: number;
}

/** Reads a part of a clip and measures it in windows, again when what is asked changes; results appear as they come. */
export function useTake({ file, shot, fromS, forS }: Asked) {
  const running = useRef<AbortController | null>(null);
  const [progress, setProgress] = useState<TakeProgress>();
  const [soFar, setSoFar] = useState<TakeSoFar>();
  const measured = useMutation({
    mutationFn: async (asked: Asked & { file: File }) => {
      running.current?.abort();
      running.current = new AbortController();
      const { signal } = running.current;
      setSoFar(undefined);
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
      if (isPlain) {
        const take = await measureHere("take", parts(asked.file, known), signal);
        setSoFar({ take, times: [], pictures: [] });
        return;
      }
      await inWindows(asked, known, parts, signal, setProgress, setSoFar);
    },
    onSettled: () => setProgress(undefined),
  });
  const { mutate } = measured;
  useEffect(() => {
    if (file) mutate({ file, shot, fromS, forS });
  }, [file, shot, fromS, forS, mutate]);
  return { ...measured, data: soFar?.take, soFar, progress, cancel: () => running.current?.abort() };
}

async function inWindows(
  asked: Asked & { file: File },
  known: object,
  parts: (file: File, request: object) => Part[],
  signal: AbortSignal,
  onProgress: (progress: TakeProgress) => void,
  onPart: (soFar: TakeSoFar) => void,
): Promise<void> {
  const clip = await Clip.open(asked.file, signal);
  const { facts } = clip;
  const windows = asked.forS === undefined ? spread(facts) : stretch(asked.fromS, asked.forS, facts);
  const joined: { answer: Omit<Take, "beside">; continued: boolean }[] = [];
  const clocks: number[][] = [];
  const pictures: Blob[] = [];
  const now: TakeProgress = { decoded: 0, measured: 0, windows: windows.length };
  // One window is measured while the next is decoded: more at a time would want more memory than a
  // phone gives a page.
  let measuring = Promise.resolve();
  const measure = async (file: File, times: number[], widthPx: number) => {
    const request = { ...known, times, widthPx, bitsPerFrame: facts.bitsPerFrame };
    const { beside: _, ...answer } = await measureHere("take", parts(file, request), signal);
    joined.push({ answer, continued: windows[joined.length]?.isContinued ?? false });
    clocks.push(joined.at(-1)?.continued ? times.slice(1) : times);
    now.measured++;
    onProgress({ ...now });
    const all = new File([JSON.stringify({ parts: joined })], "parts.json");
    const take = await measureHere("takes", parts(all, known), signal);
    onPart({ take, times: clocks.flat(), facts, pictures: [...pictures] });
  };
  try {
    for (const window of windows) {
      const before = now.decoded;
      const read = await clip.read(
        window,
        (frames) => {
          now.decoded = before + frames;
          onProgress({ ...now });
        },
        signal,
      );
      if (read.picture) pictures.push(read.picture);
      await measuring;
      measuring = measure(asY4M(read), read.times, read.originalWidth);
      measuring.catch(() => {}); // it is heard where it is awaited
    }
    await measuring;
  } finally {
    clip.close();
  }
}
