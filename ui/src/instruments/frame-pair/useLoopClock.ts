import { useEffect, useState } from "react";

/** How many frames a loop has, as the server draws it. */
const FRAMES = 16;

/** Slower than life, so that the eye can follow. */
export const SHOWN_FPS = 12;

interface LoopClock {
  frame: number;
  isPlaying: boolean;
  /** It has never moved: its first frame is all that is shown. */
  isStill: boolean;
  toggle: () => void;
  step: () => void;
}

const wantsStillness = () => window.matchMedia("(prefers-reduced-motion: reduce)").matches;

/**
 * Which frame of a loop is shown. It stands still at first where motion is not
 * wanted, and always while nobody sees it.
 */
export function useLoopClock(isSeen: boolean): LoopClock {
  const [frame, setFrame] = useState(0);
  const [isPlaying, setPlaying] = useState(() => !wantsStillness());
  const [isStill, setStill] = useState(!isPlaying);
  const next = () => setFrame((now) => (now + 1) % FRAMES);
  useEffect(() => {
    if (!isPlaying || !isSeen) return;
    const timer = setInterval(() => setFrame((now) => (now + 1) % FRAMES), 1000 / SHOWN_FPS);
    return () => clearInterval(timer);
  }, [isPlaying, isSeen]);
  return {
    frame,
    isPlaying,
    isStill,
    toggle: () => {
      setStill(false);
      setPlaying(!isPlaying);
    },
    step: () => {
      setStill(false);
      setPlaying(false);
      next();
    },
  };
}
