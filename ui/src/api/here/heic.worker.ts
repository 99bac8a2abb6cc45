import libheif from "libheif-js/libheif-wasm/libheif-bundle.mjs";
import type { Pixels } from "./pixels";

/** The most of a picture that is decoded, as the core bounds it. */
const MOST_PIXELS = 64_000_000;

/** Decodes the first picture of a HEIC, turned as it says. */
function decode(bytes: ArrayBuffer): Promise<Pixels> {
  const [image] = new (libheif().HeifDecoder)().decode(bytes);
  if (!image) throw new Error("This HEIC holds no picture that can be decoded: save it as JPEG or PNG.");
  const width = image.get_width();
  const height = image.get_height();
  if (width * height > MOST_PIXELS)
    throw new Error(`It has ${width} × ${height} pixels; 64 megapixels are read at most.`);
  const shown = { data: new Uint8ClampedArray(4 * width * height), width, height };
  return new Promise((resolve, reject) =>
    image.display(shown, (done) => {
      image.free();
      if (done) resolve({ width, height, rgba: new Uint8Array(done.data.buffer) });
      else reject(new Error("This HEIC is broken: its picture cannot be decoded."));
    }),
  );
}

self.onmessage = async ({ data }: MessageEvent<ArrayBuffer>) => {
  try {
    const pixels = await decode(data);
    self.postMessage(pixels, { transfer: [pixels.rgba.buffer] });
  } catch (cause) {
    self.postMessage({ fault: cause instanceof Error ? cause.message : String(cause) });
  }
};
