/** A file as text: UTF-8, or UTF-16 where its byte order mark says so, as spreadsheets save it. */
export async function readText(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  return new TextDecoder(encodingOf(bytes)).decode(bytes);
}

function encodingOf([first, second]: Uint8Array): string {
  if (first === 0xff && second === 0xfe) return "utf-16le";
  if (first === 0xfe && second === 0xff) return "utf-16be";
  return "utf-8";
}
