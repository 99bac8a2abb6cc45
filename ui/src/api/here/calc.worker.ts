import "./wasm_exec.js";
import program from "./calc.wasm.gz?url";
import type { Pixels } from "./pixels";

/** A file or a text to measure, by the option it is given as. */
export type MeasurePart =
  | { option: string; text: string }
  | { option: string; name: string; bytes: Uint8Array; pixels?: Pixels };

/** A computation or a measurement asked for, and its answer; both carry the same id. */
export type Asked = { id: number } & ({ name: string; body: string } | { measure: string; parts: MeasurePart[] });
export interface Answered {
  id: number;
  status: number;
  text: string;
}

declare const Go: new () => { importObject: WebAssembly.Imports; run(instance: WebAssembly.Instance): Promise<void> };
declare const pinholeAnswer: (name: string, body: string) => { status: number; text: string };
declare const pinholeMeasure: (name: string, parts: MeasurePart[]) => { status: number; text: string };

/** Fetches the program, unpacks it and starts it; from then on pinholeAnswer is there. */
async function start(): Promise<void> {
  const packed = await fetch(program);
  if (!packed.ok || !packed.body) throw new Error("the computation could not be loaded");
  const unpacked = packed.body.pipeThrough(new DecompressionStream("gzip"));
  const go = new Go();
  const { instance } = await WebAssembly.instantiateStreaming(
    new Response(unpacked, { headers: { "Content-Type": "application/wasm" } }),
    go.importObject,
  );
  void go.run(instance); // ends with the page
}

const started = start();
// Whoever asks is told; that nobody has asked yet is no fault of the page.
started.catch(() => {});

self.onmessage = async ({ data }: MessageEvent<Asked>) => {
  try {
    await started;
    const answer = "measure" in data ? pinholeMeasure(data.measure, data.parts) : pinholeAnswer(data.name, data.body);
    self.postMessage({ id: data.id, ...answer } satisfies Answered);
  } catch (cause) {
    self.postMessage({ id: data.id, status: 0, text: String(cause) } satisfies Answered);
  }
};
