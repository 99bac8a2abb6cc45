/** A part of a clip that is read. */
export interface ClipAsked {
  file: File;
  fromS: number;
  forS: number;
}

/** The luma of a part of a clip, reduced to the width that is worked on. */
export interface ClipRead {
  kind: "read";
  luma: Uint8Array;
  frames: number;
  width: number;
  height: number;
  /** Of the clip itself. */
  originalWidth: number;
  isFull: boolean;
  /** When each frame is shown, seconds. */
  times: number[];
  durationS: number;
  bitsPerFrame: number;
}

export type ClipSaid =
  | ClipRead
  | { kind: "progress"; frames: number; durationS: number }
  | { kind: "fault"; words: string };

/** Demuxes and decodes a part of a clip on this device, beside the page. */
export function readClip(
  asked: ClipAsked,
  onProgress: (frames: number) => void,
  signal: AbortSignal,
): Promise<ClipRead> {
  const worker = new Worker(new URL("./clip.worker.ts", import.meta.url), { type: "module" });
  return new Promise<ClipRead>((resolve, reject) => {
    signal.addEventListener("abort", () => reject(new DOMException("cancelled", "AbortError")));
    worker.onerror = () => reject(new Error("The reader of clips could not be started."));
    worker.onmessage = ({ data }: MessageEvent<ClipSaid>) => {
      if (data.kind === "progress") onProgress(data.frames);
      else if (data.kind === "fault") reject(new Error(data.words));
      else resolve(data);
    };
    worker.postMessage(asked);
  }).finally(() => worker.terminate());
}

/** A clip that was read, as the core takes it: YUV4MPEG2 without colour. */
export function asY4M({ luma, frames, width, height, isFull }: ClipRead): File {
  const range = isFull ? "FULL" : "LIMITED";
  const size = width * height;
  const parts: BlobPart[] = [`YUV4MPEG2 W${width} H${height} F0:0 Ip A1:1 Cmono XCOLORRANGE=${range}\n`];
  for (let i = 0; i < frames; i++) parts.push("FRAME\n", luma.slice(i * size, (i + 1) * size));
  return new File(parts, "clip.y4m");
}
