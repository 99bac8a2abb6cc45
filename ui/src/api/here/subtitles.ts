import { createFile, type ISOFile, MP4BoxBuffer, type Sample } from "mp4box";

/** So many texts are read at most: ten minutes at 60 a second. */
const MOST_TEXTS = 36_000;
/** What a file is read in. */
const CHUNK_BYTES = 1 << 20;
/** Tracks of plain text: timed text as cameras and editors write it, and text metadata. */
const TEXT_CODECS = /^(tx3g|text|mett|wvtt|stpp|sbtl)/;

/** The texts of a clip's subtitle or text track as SubRip; undefined where it has none. */
export async function subtitlesOf(file: File): Promise<string | undefined> {
  const type = new TextDecoder("latin1").decode(await file.slice(4, 8).arrayBuffer());
  if (type !== "ftyp") return undefined;
  const movie = await indexOf(file);
  const track = movie?.getInfo().tracks.find((t) => TEXT_CODECS.test(t.codec));
  if (!movie || !track) return undefined;
  const cues: string[] = [];
  for (const sample of movie.getTrackSamplesInfo(track.id).slice(0, MOST_TEXTS)) {
    const bytes = new Uint8Array(await file.slice(sample.offset, sample.offset + sample.size).arrayBuffer());
    const text = textOf(bytes, track.codec);
    if (text) cues.push(`${cues.length + 1}\n${clock(sample)}\n${text}\n`);
  }
  return cues.length > 0 ? cues.join("\n") : undefined;
}

/** Reads where everything lies in a file, skipping the pictures. */
async function indexOf(file: File): Promise<ISOFile | undefined> {
  const movie = createFile();
  let isReady = false;
  movie.onReady = () => {
    isReady = true;
  };
  let at = 0;
  while (!isReady && at < file.size) {
    const chunk = MP4BoxBuffer.fromArrayBuffer(await file.slice(at, at + CHUNK_BYTES).arrayBuffer(), at);
    const next = movie.appendBuffer(chunk);
    at = next > at ? next : at + CHUNK_BYTES;
  }
  return isReady ? movie : undefined;
}

/** Timed text has its length before it, in two bytes, and styles behind. */
function textOf(bytes: Uint8Array, codec: string): string {
  const decoder = new TextDecoder();
  if (!/^(tx3g|text)/.test(codec)) return decoder.decode(bytes).trim();
  const length = ((bytes[0] ?? 0) << 8) | (bytes[1] ?? 0);
  return decoder.decode(bytes.subarray(2, 2 + length)).trim();
}

function clock({ cts, duration, timescale }: Sample): string {
  const at = (ticks: number) => {
    const ms = Math.round((1000 * ticks) / timescale);
    const two = (v: number) => String(Math.floor(v)).padStart(2, "0");
    return `${two(ms / 3_600_000)}:${two((ms / 60_000) % 60)}:${two((ms / 1000) % 60)},${String(ms % 1000).padStart(3, "0")}`;
  };
  return `${at(cts)} --> ${at(cts + duration)}`;
}
