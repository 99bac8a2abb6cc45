import { execFile } from "node:child_process";
import { mkdtemp, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";

const run = promisify(execFile);

export interface Printed {
  text: string;
  pages: number;
  /** Of a page, in millimetres. */
  widthMm: number;
  heightMm: number;
}

/** Reads a PDF with another program than the one that wrote it (poppler). */
export async function readPdf(file: Buffer): Promise<Printed> {
  const folder = await mkdtemp(join(tmpdir(), "pinhole-pdf-"));
  try {
    const path = join(folder, "file.pdf");
    await writeFile(path, file);
    const { stdout: text } = await run("pdftotext", ["-layout", path, "-"]);
    const { stdout: info } = await run("pdfinfo", [path]);
    const [, w = "", h = ""] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(info) ?? [];
    const [, pages = ""] = /Pages:\s+(\d+)/.exec(info) ?? [];
    const mm = (points: string) => (Number(points) / 72) * 25.4;
    return { text, pages: Number(pages), widthMm: mm(w), heightMm: mm(h) };
  } finally {
    await rm(folder, { recursive: true });
  }
}
