import { ALL_FORMATS, BlobSource, Input, type InputVideoTrack, type VideoSample, VideoSampleSink } from "mediabunny";
import type { ClipAsked, ClipSaid, ClipWindow } from "./clip";
import { subtitlesOf } from "./subtitles";

/** Frames are brought to a width between this and twice this, by the mean of whole squares of pixels. */
const WORK_WIDTH = 320;
/** So many frames the core measures at least, and are held at most. */
const FEWEST_FRAMES = 8;
const MOST_FRAMES = 300;
/** Of the small picture of a window. */
const PICTURE_WIDTH = 160;

const say = (said: ClipSaid, transfer: Transferable[] = []) => self.postMessage(said, { transfer });

/** The luma of a frame: where it lies, one or two bytes a pixel (the lower one first, of so many bits). */
interface Luma {
  bytes: Uint8Array;
  offset: number;
  stride: number;
  bits: number;
  width: number;
  height: number;
  isFull: boolean;
}

/** Room for one frame as it is decoded: taken once, since each is some megabytes. */
let room = new Uint8Array(0);

async function lumaOf(sample: VideoSample): Promise<Luma> {
  const frame = sample.toVideoFrame();
  try {
    const { format, visibleRect, codedWidth, codedHeight, colorSpace } = frame;
    const width = visibleRect?.width ?? codedWidth;
    const height = visibleRect?.height ?? codedHeight;
    if (!format || !/^(I4|NV12)/.test(format)) return fromPixels(frame);
    const size = frame.allocationSize();
    if (room.length < size) room = new Uint8Array(size);
    const [y] = await frame.copyTo(room);
    if (!y) throw new Error("the frame has no luma");
    const bits = Number(/P(1[02])/.exec(format)?.[1] ?? 8);
    return {
      bytes: room,
      offset: y.offset,
      stride: y.stride,
      bits,
      width,
      height,
      isFull: colorSpace.fullRange === true,
    };
  } finally {
    frame.close();
  }
}

/** The luma of a frame that can only be drawn. */
function fromPixels(frame: VideoFrame): Luma {
  const { displayWidth: width, displayHeight: height } = frame;
  const context = new OffscreenCanvas(width, height).getContext("2d");
  if (!context) throw new Error("this device has no memory left");
  context.drawImage(frame, 0, 0);
  const { data } = context.getImageData(0, 0, width, height);
  const bytes = new Uint8Array(width * height);
  for (let i = 0; i < bytes.length; i++)
    bytes[i] = 0.2126 * (data[4 * i] ?? 0) + 0.7152 * (data[4 * i + 1] ?? 0) + 0.0722 * (data[4 * i + 2] ?? 0) + 0.5;
  return { bytes, offset: 0, stride: width, bits: 8, width, height, isFull: true };
}

/** Brings luma to the size that is worked on, and to 8 bits. */
function reduced({ bytes, offset, stride, bits, width, height }: Luma): {
  luma: Uint8Array;
  width: number;
  height: number;
} {
  const side = Math.max(1, Math.floor(width / WORK_WIDTH));
  const w = Math.floor(width / side);
  const h = Math.floor(height / side);
  const each = bits === 8 ? 1 : 2;
  const out = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let dy = 0; dy < side; dy++) {
        const from = offset + (y * side + dy) * stride + x * side * each;
        if (each === 1) for (let dx = 0; dx < side; dx++) sum += bytes[from + dx] ?? 0;
        else
          for (let dx = 0; dx < side; dx++)
            sum += ((bytes[from + 2 * dx] ?? 0) | ((bytes[from + 2 * dx + 1] ?? 0) << 8)) / 2 ** (bits - 8);
      }
      out[y * w + x] = sum / (side * side) + 0.5;
    }
  return { luma: out, width: w, height: h };
}

/** What this browser cannot decode, and what works in its place. */
const cannotDecode = (codec: string | null) =>
  `This browser cannot decode ${codec ?? "this clip's codec"}. Use a proxy in H.264, or stills, or: ffmpeg -i clip -t 4 -vf scale=320:-2 -pix_fmt yuv420p clip.y4m`;

let opened: { track: InputVideoTrack; firstS: number; durationS: number } | undefined;
/** The last frame that was read: a window that goes on begins with it. */
let last: { luma: Uint8Array; atS: number } | undefined;

async function open(file: File): Promise<void> {
  const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
  if (!(await input.canRead()))
    throw new Error("This is no clip that is known: MP4, MOV, WebM and YUV4MPEG2 are read.");
  const track = await input.getPrimaryVideoTrack();
  if (!track) throw new Error("There is no picture track in it.");
  if (!(await track.canDecode())) throw new Error(cannotDecode(track.codec));
  const { averagePacketRate, averageBitrate } = await track.computePacketStats(300);
  opened = { track, firstS: await track.getFirstTimestamp(), durationS: await track.computeDuration() };
  const subtitles = await subtitlesOf(file).catch(() => undefined);
  say({
    kind: "opened",
    durationS: opened.durationS - opened.firstS,
    fps: averagePacketRate,
    bitsPerFrame: averageBitrate / Math.max(1, averagePacketRate),
    rotation: track.rotation,
    ...(subtitles && { subtitles }),
  });
}

/** A small picture of a frame, to know a take by. */
async function pictureOf(sample: VideoSample): Promise<Blob> {
  const width = PICTURE_WIDTH;
  const height = Math.max(1, Math.round((width * sample.displayHeight) / sample.displayWidth));
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext("2d");
  if (!context) throw new Error("this device has no memory left");
  sample.draw(context, 0, 0, width, height);
  return canvas.convertToBlob({ type: "image/jpeg", quality: 0.7 });
}

async function read({ fromS, forS, isContinued }: ClipWindow): Promise<void> {
  if (!opened) throw new Error("The clip is not open.");
  const { track, firstS, durationS } = opened;
  const start = firstS + fromS;
  const times: number[] = [];
  const frames: Uint8Array[] = [];
  if (isContinued && last) {
    times.push(last.atS);
    frames.push(last.luma);
  }
  let size = { width: 0, height: 0, originalWidth: 0, isFull: false };
  let picture: Blob | undefined;
  for await (const sample of new VideoSampleSink(track).samples(start, start + forS)) {
    const whole = await lumaOf(sample);
    const { isFull } = whole;
    if (!picture && sample.timestamp >= start + forS / 2 - 1e-3) picture = await pictureOf(sample);
    const atS = sample.timestamp;
    sample.close();
    const small = reduced(whole);
    size = { width: small.width, height: small.height, originalWidth: whole.width, isFull };
    if (times.length > 0 && atS <= (times.at(-1) ?? 0)) continue; // a frame that was read already
    times.push(atS);
    frames.push(small.luma);
    last = { luma: small.luma, atS };
    say({ kind: "progress", frames: frames.length });
    if (frames.length === MOST_FRAMES) break;
  }
  if (frames.length < FEWEST_FRAMES)
    throw new Error(
      `From ${Number(fromS.toFixed(2))} s on there are ${frames.length} frames of ${durationS.toFixed(1)} s in all: ${FEWEST_FRAMES} are needed. Begin earlier, or take longer.`,
    );
  const luma = new Uint8Array(frames.length * size.width * size.height);
  for (const [i, f] of frames.entries()) luma.set(f, i * size.width * size.height);
  say({ kind: "read", luma, frames: frames.length, times, ...size, ...(picture && { picture }) }, [luma.buffer]);
}

self.onmessage = ({ data }: MessageEvent<ClipAsked>) => {
  const done = data.kind === "open" ? open(data.file) : read(data);
  done.catch((cause) => say({ kind: "fault", words: cause instanceof Error ? cause.message : String(cause) }));
};
