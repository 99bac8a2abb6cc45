/** What is known of a clip before its frames are decoded. */
export interface ClipFacts {
  durationS: number;
  fps: number;
  bitsPerFrame: number;
  /** By how much players turn it, degrees. It is measured as the sensor read it. */
  rotation: number;
  /** The texts of its subtitle or telemetry track, as SubRip. */
  subtitles?: string;
}

/** A stretch of a clip that is measured by itself. */
export interface ClipWindow {
  fromS: number;
  forS: number;
  /** It begins with the frame that the window before it ends with. */
  isContinued: boolean;
}

/** The luma of a stretch, reduced to the width that is worked on. */
export interface ClipRead {
  luma: Uint8Array<ArrayBuffer>;
  frames: number;
  width: number;
  height: number;
  /** Of the clip itself. */
  originalWidth: number;
  isFull: boolean;
  /** When each frame is shown, seconds. */
  times: number[];
  /** A small picture of the middle of it, JPEG. */
  picture?: Blob;
}

export type ClipAsked = { kind: "open"; file: File } | ({ kind: "read" } & ClipWindow);

export type ClipSaid =
  | ({ kind: "opened" } & ClipFacts)
  | ({ kind: "read" } & ClipRead)
  | { kind: "progress"; frames: number }
  | { kind: "fault"; words: string };

/** So many frames are measured at once: enough for a share of the shutter, few enough for a phone's memory. */
const WINDOW_FRAMES = 64;
/** Shake is read from so long on. */
const WINDOW_LEAST_S = 1;
/** A clip that is spread over is measured in so many windows. */
const SPREAD_WINDOWS = 8;

/** Parts a stretch of a clip into windows that are measured each by itself. */
export function stretch(fromS: number, forS: number, { durationS, fps }: ClipFacts): ClipWindow[] {
  const length = Math.max(0, Math.min(forS, durationS - fromS)) || forS;
  const each = Math.max(WINDOW_FRAMES / fps, WINDOW_LEAST_S);
  const n = Math.max(1, Math.round(length / each));
  return Array.from({ length: n }, (_, i) => ({
    fromS: fromS + (i * length) / n,
    forS: length / n,
    isContinued: i > 0,
  }));
}

/** Windows spread over the whole of a clip; the whole of one that is hardly longer than they are. */
export function spread(facts: ClipFacts): ClipWindow[] {
  const forS = Math.max(WINDOW_FRAMES / 2 / facts.fps, WINDOW_LEAST_S);
  if (facts.durationS < 2 * SPREAD_WINDOWS * forS) return stretch(0, facts.durationS, facts);
  const step = (facts.durationS - forS) / (SPREAD_WINDOWS - 1);
  return Array.from({ length: SPREAD_WINDOWS }, (_, i) => ({ fromS: i * step, forS, isContinued: false }));
}

/** A clip that is demuxed and decoded on this device, beside the page. */
export class Clip {
  private constructor(
    private readonly worker: Worker,
    readonly facts: ClipFacts,
  ) {}

  static async open(file: File, signal: AbortSignal): Promise<Clip> {
    const worker = new Worker(new URL("./clip.worker.ts", import.meta.url), { type: "module" });
    signal.addEventListener("abort", () => worker.terminate());
    try {
      const facts = await asked(worker, { kind: "open", file }, "opened", signal);
      return new Clip(worker, facts);
    } catch (cause) {
      worker.terminate();
      throw cause;
    }
  }

  /** Decodes a window. Windows are read one after the other. */
  read(window: ClipWindow, onProgress: (frames: number) => void, signal: AbortSignal): Promise<ClipRead> {
    return asked(this.worker, { kind: "read", ...window }, "read", signal, onProgress);
  }

  close(): void {
    this.worker.terminate();
  }
}

function asked<K extends "opened" | "read">(
  worker: Worker,
  question: ClipAsked,
  kind: K,
  signal: AbortSignal,
  onProgress?: (frames: number) => void,
): Promise<Extract<ClipSaid, { kind: K }>> {
  return new Promise((resolve, reject) => {
    signal.throwIfAborted();
    signal.addEventListener("abort", () => reject(new DOMException("cancelled", "AbortError")));
    worker.onerror = () => reject(new Error("The reader of clips could not be started."));
    worker.onmessage = ({ data }: MessageEvent<ClipSaid>) => {
      if (data.kind === "progress") onProgress?.(data.frames);
      else if (data.kind === "fault") reject(new Error(data.words));
      else if (data.kind === kind) resolve(data as Extract<ClipSaid, { kind: K }>);
    };
    worker.postMessage(question);
  });
}

/** A window that was read, as the core takes it: YUV4MPEG2 without colour. */
export function asY4M({ luma, frames, width, height, isFull }: ClipRead): File {
  const range = isFull ? "FULL" : "LIMITED";
  const size = width * height;
  const parts: BlobPart[] = [`YUV4MPEG2 W${width} H${height} F0:0 Ip A1:1 Cmono XCOLORRANGE=${range}\n`];
  for (let i = 0; i < frames; i++) parts.push("FRAME\n", luma.subarray(i * size, (i + 1) * size));
  return new File(parts, "clip.y4m");
}
