/** What a file is, told from what stands in it and not from its name. */
import { foreignFormat } from "../../api/here/pixels";
import { readText } from "../../lib/readText";

/** Kinds that something here reads, and kinds that are known and not read yet. */
export type Kind =
  | "kit"
  | "archive"
  | "track"
  | "still"
  | "line"
  | "picture"
  | "raw"
  | "plan"
  | "clip"
  | "telemetry"
  | "gyro"
  | "unknown";

export interface Came {
  file: File;
  kind: Kind;
  /** Of a line, what it says. */
  line?: string;
}

/** So much of a text is looked at. */
const HEAD_BYTES = 64_000;
/** A longer text is no line. */
const LINE_CHARACTERS = 400;

const starts = (bytes: Uint8Array, ...wanted: number[]) => wanted.every((b, i) => bytes[i] === b);
const ascii = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));

/** The kind that the first bytes say. */
function kindOfBytes(bytes: Uint8Array): Kind | undefined {
  if (starts(bytes, 0x50, 0x4b, 3, 4)) return "archive";
  if (starts(bytes, 0xff, 0xd8, 0xff)) return "still";
  if (starts(bytes, 0x89, 0x50, 0x4e, 0x47)) return "picture";
  if (starts(bytes, 0x1a, 0x45, 0xdf, 0xa3) || ascii(bytes, 0, 9) === "YUV4MPEG2") return "clip";
  if (foreignFormat(bytes)) return "still";
  if (ascii(bytes, 4, 8) === "ftyp") return "clip";
  if (starts(bytes, 0x49, 0x49, 0x2a, 0) || starts(bytes, 0x4d, 0x4d, 0, 0x2a)) return "raw";
  return undefined;
}

/** The kind of a text. */
export function kindOfText(text: string): Kind {
  const head = text.trimStart();
  if (head.includes("\0")) return "unknown";
  if (head.startsWith("{")) return head.includes("pinhole-kit") ? "kit" : "unknown";
  if (head.startsWith("BEGIN:VCALENDAR")) return "plan";
  if (head.startsWith("<")) return /<gpx\b/.test(head) ? "track" : "unknown";
  if (/^\d+\s*\r?\n\d+:\d+:\d+[,.]\d+ *-->/.test(head)) return "telemetry";
  const [first = ""] = head.split(/\r?\n/, 1);
  const cells = first.split(/[\t;,]/).map((cell) => cell.replace(/^"|"$/g, "").trim().toLowerCase());
  if (cells.includes("label")) return "kit";
  if (cells.length > 2 && cells.some((cell) => /^(time|t|timestamp)(\b|_)/.test(cell)))
    return cells.some((cell) => /^(shutter|exposure|ss|tv|iso)/.test(cell)) ? "telemetry" : "gyro";
  const lines = head.trimEnd().split(/\r?\n/);
  if (lines.length > 1 || first.includes("\t")) return "kit";
  return head !== "" && head.length <= LINE_CHARACTERS ? "line" : "unknown";
}

export async function recognise(file: File): Promise<Came> {
  const bytes = new Uint8Array(await file.slice(0, 16).arrayBuffer());
  const known = kindOfBytes(bytes);
  if (known) return { file, kind: known };
  const text = await readText(file.slice(0, HEAD_BYTES));
  const kind = kindOfText(text);
  return kind === "line" ? { file, kind, line: text.trim() } : { file, kind };
}
