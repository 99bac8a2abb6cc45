import { Box, Button, Flex, Slider, Stack, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { Choice } from "../../lib/Choice";
import { decimal } from "../../lib/locale";
import { NumberField } from "../../lib/NumberField";
import { saveBlob } from "../../lib/saveBlob";
import { useObjectUrl } from "../../lib/useObjectUrl";

const VIEWS = [
  { value: "side", name: "Side by side" },
  { value: "wipe", name: "Wipe" },
  { value: "difference", name: "Difference" },
] as const;
type View = (typeof VIEWS)[number]["value"];

interface TakePlayerProps {
  first: File;
  /** One beside it, in step. */
  second?: File | undefined;
  fps: number;
  /** What each is called; "" while sides are hidden. */
  names: readonly [string, string];
  /** Where it stands, seconds. */
  at: number;
  onAt: (seconds: number) => void;
  /** By how many frames the second is later. */
  offset?: number;
  onOffset?: (frames: number) => void;
  /** What else can be done with the two. */
  children?: React.ReactNode;
}

/** A clip, or two in step: side by side, one wiped over the other, or what differs; frame by frame. */
export function TakePlayer({ first, second, fps, names, at, onAt, offset = 0, onOffset, children }: TakePlayerProps) {
  const a = useRef<HTMLVideoElement>(null);
  const b = useRef<HTMLVideoElement>(null);
  const [view, setView] = useState<View>("side");
  const [wipe, setWipe] = useState(50);
  const [lengthS, setLengthS] = useState(0);
  const [isPlaying, setPlaying] = useState(false);
  const urls = [useObjectUrl(first), useObjectUrl(second)] as const;
  const show = (seconds: number) => onAt(Math.min(Math.max(0, seconds), lengthS || seconds));
  // What stands still shows the middle of a frame: at its edge a browser may show the one before.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a clip whose length has come can be sought in.
  useEffect(() => {
    if (isPlaying) return;
    if (a.current) a.current.currentTime = at + 0.5 / fps;
    if (b.current) b.current.currentTime = Math.max(0, at + (offset + 0.5) / fps);
  }, [at, offset, fps, isPlaying, lengthS]);
  useEffect(() => {
    if (!isPlaying) return;
    const timer = setInterval(() => a.current && onAt(a.current.currentTime), 100);
    for (const clip of [a.current, b.current]) void clip?.play().catch(() => setPlaying(false));
    return () => {
      clearInterval(timer);
      for (const clip of [a.current, b.current]) clip?.pause();
    };
  }, [isPlaying, onAt]);
  const step = (frames: number) => {
    setPlaying(false);
    show(at + frames / fps);
  };
  const onKey = (event: React.KeyboardEvent) => {
    if (event.target !== event.currentTarget) return;
    if (event.key === "ArrowRight") step(event.shiftKey ? 10 : 1);
    else if (event.key === "ArrowLeft") step(event.shiftKey ? -10 : -1);
    else if (event.key === " ") setPlaying(!isPlaying);
    else return;
    event.preventDefault();
  };
  const isStacked = second !== undefined && view !== "side";
  const clip = (which: 0 | 1) => (
    <video
      ref={which === 0 ? a : b}
      src={urls[which]}
      muted
      playsInline
      preload="auto"
      aria-label={names[which] || `Clip ${which + 1}`}
      onLoadedMetadata={(e) => which === 0 && setLengthS(e.currentTarget.duration)}
      onEnded={() => setPlaying(false)}
      style={{
        width: "100%",
        maxHeight: "60vh",
        objectFit: "contain",
        display: "block",
        ...(isStacked && which === 1 && { position: "absolute", inset: 0, height: "100%" }),
        ...(view === "wipe" && which === 1 && { clipPath: `inset(0 0 0 ${wipe}%)` }),
        ...(view === "difference" && which === 1 && { mixBlendMode: "difference" }),
      }}
    />
  );
  return (
    <Stack gap="2" data-testid="take-player">
      {second && <Choice label="Compared" options={VIEWS} value={view} onChange={setView} />}
      <Box
        role="group"
        aria-label={`${second ? "Two clips in step" : "The clip"}. Arrow keys step by a frame, with shift by ten; space plays`}
        tabIndex={0}
        onKeyDown={onKey}
        position="relative"
        maxW={isStacked ? "960px" : second ? undefined : "640px"}
        isolation="isolate"
        display={isStacked ? "block" : "grid"}
        gridTemplateColumns={{ base: "1fr", md: second ? "1fr 1fr" : "1fr" }}
        gap="2"
      >
        <Box>{clip(0)}</Box>
        {second && (isStacked ? clip(1) : <Box>{clip(1)}</Box>)}
      </Box>
      {second && (
        <Flex justify="space-between" fontSize="sm" color="muted">
          <Text>{names[0]}</Text>
          <Text>{names[1]}</Text>
        </Flex>
      )}
      {isStacked && view === "wipe" && (
        <Bar label="Where the second begins, per cent" value={wipe} max={100} step={1} onChange={setWipe} />
      )}
      <Bar
        label="Time"
        value={at}
        max={Math.max(lengthS, 0.1)}
        step={1 / fps}
        onChange={(seconds) => {
          setPlaying(false);
          show(seconds);
        }}
      />
      <Flex gap="2" wrap="wrap" align="flex-end">
        <Button variant="outline" onClick={() => step(-1)} aria-label="A frame back">
          ‹
        </Button>
        <Button minW="84px" onClick={() => setPlaying(!isPlaying)}>
          {isPlaying ? "Pause" : "Play"}
        </Button>
        <Button variant="outline" onClick={() => step(1)} aria-label="A frame on">
          ›
        </Button>
        {onOffset && (
          <NumberField
            label="Second later by, frames"
            w="150px"
            value={offset}
            onChange={(frames) => onOffset(Math.round(frames ?? 0))}
          />
        )}
        {children}
        <Button
          variant="outline"
          onClick={async () => {
            for (const [i, clip] of [a.current, b.current].entries())
              if (clip) await pull(clip, `frame ${Math.round(at * fps)} ${i + 1}.png`);
          }}
        >
          This frame as PNG
        </Button>
        <Text color="muted">
          frame {Math.round(at * fps)}, {decimal(at, 2)} s
        </Text>
      </Flex>
    </Stack>
  );
}

interface BarProps {
  label: string;
  value: number;
  max: number;
  step: number;
  onChange: (value: number) => void;
}

function Bar({ label, value, max, step, onChange }: BarProps) {
  return (
    <Slider.Root
      value={[value]}
      min={0}
      max={max}
      step={step}
      aria-label={[label]}
      onValueChange={({ value: [next] }) => next !== undefined && onChange(next)}
    >
      <Slider.Control>
        <Slider.Track>
          <Slider.Range bg="accent" />
        </Slider.Track>
        <Slider.Thumb index={0} />
      </Slider.Control>
    </Slider.Root>
  );
}

/** Saves what a clip shows as a picture. */
async function pull(clip: HTMLVideoElement, name: string): Promise<void> {
  const canvas = new OffscreenCanvas(clip.videoWidth, clip.videoHeight);
  canvas.getContext("2d")?.drawImage(clip, 0, 0);
  saveBlob(await canvas.convertToBlob({ type: "image/png" }), name);
}
