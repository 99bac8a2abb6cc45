/** A decoded picture, as the core takes it: the way up it is shown, four bytes a pixel. */
export interface Pixels {
  width: number;
  height: number;
  rgba: Uint8Array;
}

/** What a file chooser offers of pictures. */
export const PICTURES = "image/png,image/jpeg,image/heic,image/heif,image/avif,.heic,.heif,.avif";
/** The same, with what has an exposure only. */
export const STILLS = `${PICTURES},.dng,.arw,.cr2,.nef,.pef,.tif,.tiff`;

/** So much of a file says what it is. */
const HEAD_BYTES = 12;
const ascii = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));

/** The picture formats that the core leaves to the page to decode. */
export function foreignFormat(head: Uint8Array): "heic" | "avif" | undefined {
  if (ascii(head, 4, 8) !== "ftyp") return undefined;
  const brand = ascii(head, 8, 12);
  if (/^avi[fs]/.test(brand)) return "avif";
  return /^(hei|hev|mif|msf)/.test(brand) ? "heic" : undefined;
}

/** What stands in a HEIC or AVIF; undefined for every other file, which the core reads itself. */
export async function pixelsOf(file: Blob): Promise<Pixels | undefined> {
  const format = foreignFormat(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()));
  if (format === "avif") return bitmapPixels(file);
  return format === "heic" ? heicPixels(file) : undefined;
}

/** A picture that any browser shows, made of decoded pixels. */
export async function shownOf({ width, height, rgba }: Pixels): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext("2d")?.putImageData(new ImageData(new Uint8ClampedArray(rgba), width, height), 0, 0);
  return canvas.convertToBlob({ type: "image/png" });
}

async function bitmapPixels(file: Blob): Promise<Pixels> {
  const typed = new Blob([file], { type: "image/avif" });
  const bitmap = await createImageBitmap(typed, { colorSpaceConversion: "none" }).catch(() => {
    throw new Error("This AVIF cannot be decoded by this browser: save it as JPEG or PNG.");
  });
  const { width, height } = bitmap;
  const context = new OffscreenCanvas(width, height).getContext("2d");
  context?.drawImage(bitmap, 0, 0);
  bitmap.close();
  const data = context?.getImageData(0, 0, width, height).data;
  if (!data) throw new Error("This device has no memory left for the picture.");
  return { width, height, rgba: new Uint8Array(data.buffer) };
}

/** The decoder is two megabytes and slow: it is fetched when a HEIC is there, and works beside the page. */
async function heicPixels(file: Blob): Promise<Pixels> {
  const worker = new Worker(new URL("./heic.worker.ts", import.meta.url), { type: "module" });
  try {
    const bytes = await file.arrayBuffer();
    return await new Promise<Pixels>((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<Pixels | { fault: string }>) =>
        "fault" in data ? reject(new Error(data.fault)) : resolve(data);
      worker.onerror = () => reject(new Error("The decoder of HEIC could not be loaded."));
      worker.postMessage(bytes, [bytes]);
    });
  } finally {
    worker.terminate();
  }
}
