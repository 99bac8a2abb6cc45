import { Problem } from "../client";
import type { Schemas } from "../schemas";
import type { Answered, Asked, MeasurePart } from "./calc.worker";
import { type Pixels, pixelsOf } from "./pixels";

/** A file or a text, by the option it is given as. */
export type Part = { option: string; file: File } | { option: string; text: string };

/** What each measurement answers. */
export interface Measured {
  frame: Schemas["MeasuredFrameAnswer"];
  filter: Schemas["MeasuredFilterAnswer"];
  corners: Schemas["MeasuredCornersAnswer"];
  sharpness: Schemas["MeasuredSharpnessAnswer"];
  flare: Schemas["MeasuredFlareAnswer"];
  curve: Schemas["MeasuredCurveAnswer"];
  telemetry: Schemas["MeasuredTelemetryAnswer"];
  gyro: Schemas["MeasuredGyroAnswer"];
  take: Schemas["MeasuredTakeAnswer"];
  takes: Schemas["MeasuredTakeAnswer"];
}

/** More than this leaves a worker with a large memory, which is given back. */
const LARGE_BYTES = 12_000_000;
/** So many workers wait: as many as measure at a time. */
const MOST_IDLE = 2;

/** The pixels of a file that the core does not decode. */
async function decoded(file: File): Promise<{ pixels?: Pixels }> {
  const pixels = await pixelsOf(file);
  return pixels ? { pixels } : {};
}

/** Workers that wait for the next measurement: starting one takes longer than most measurements. */
const idle: Worker[] = [];

const start = (): Worker => new Worker(new URL("./calc.worker.ts", import.meta.url), { type: "module" });

/**
 * Measures files on this device, by the server's own core: they never leave it. A measurement has
 * a worker to itself, which ends when it is cancelled.
 */
export async function measureHere<N extends keyof Measured>(
  name: N,
  parts: readonly Part[],
  signal?: AbortSignal,
): Promise<Measured[N]> {
  const given: MeasurePart[] = await Promise.all(
    parts.map(async (part) =>
      "text" in part
        ? part
        : {
            option: part.option,
            name: part.file.name,
            bytes: new Uint8Array(await part.file.arrayBuffer()),
            ...(await decoded(part.file)),
          },
    ),
  );
  const buffers = given.flatMap((part) =>
    "bytes" in part ? [part.bytes.buffer, ...(part.pixels ? [part.pixels.rgba.buffer] : [])] : [],
  ) as ArrayBuffer[];
  const isLarge = buffers.reduce((sum, b) => sum + b.byteLength, 0) > LARGE_BYTES;
  const worker = idle.pop() ?? start();
  let isWell = false;
  try {
    const { status, text } = await new Promise<Answered>((resolve, reject) => {
      signal?.addEventListener("abort", () => reject(new DOMException("cancelled", "AbortError")));
      worker.onmessage = ({ data }: MessageEvent<Answered>) => resolve(data);
      worker.onerror = () => reject(new Error("The measurement could not be started."));
      worker.postMessage({ id: 1, measure: name, parts: given } satisfies Asked, buffers);
    });
    isWell = status !== 0;
    if (status === 0) throw new Error("This device ran out of memory, or the computation could not be loaded.");
    if (status !== 200) throw new Problem(JSON.parse(text));
    return JSON.parse(text) as Measured[N];
  } finally {
    if (isWell && !isLarge && idle.length < MOST_IDLE) idle.push(worker);
    else {
      worker.terminate();
      if (idle.length === 0) idle.push(start()); // the next one finds it warm
    }
  }
}
