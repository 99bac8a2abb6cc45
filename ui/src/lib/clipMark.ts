import type { Schemas } from "./../api/schemas";

/** So much of both ends of a clip tells it from others. */
const END_BYTES = 1 << 20;
const MOST_PICTURES = 3;

/** SHA-256 of a file's size and its first and last MiB, in hexadecimal; undefined where the browser has none. */
async function hashOf(file: File): Promise<string | undefined> {
  if (!globalThis.crypto?.subtle) return undefined; // plain http
  const marked = new Blob([
    String(file.size),
    file.slice(0, END_BYTES),
    file.slice(Math.max(END_BYTES, file.size - END_BYTES)),
  ]);
  const hash = await crypto.subtle.digest("SHA-256", await marked.arrayBuffer());
  return Array.from(new Uint8Array(hash), (b) => b.toString(16).padStart(2, "0")).join("");
}

async function base64(picture: Blob): Promise<string> {
  const bytes = new Uint8Array(await picture.arrayBuffer());
  let text = "";
  for (const b of bytes) text += String.fromCharCode(b);
  return btoa(text);
}

/** What a clip is known by again: its name, its hash and a few small pictures. */
export async function clipMark(file: File, pictures: readonly Blob[]): Promise<Schemas["RecordClip"]> {
  const step = Math.max(1, Math.ceil(pictures.length / MOST_PICTURES));
  const hash = await hashOf(file);
  return {
    name: file.name.slice(0, 200),
    ...(hash && { hash }),
    pictures: await Promise.all(pictures.filter((_, i) => i % step === 0).map(base64)),
  };
}
