import type { Target } from "./session/steps";

/** How each target stands before the camera, seen from the side of who shoots. */
export function TargetDrawing({ target }: { target: Target }) {
  return (
    <svg
      viewBox="0 0 240 120"
      role="img"
      aria-label={SAYS[target]}
      style={{ width: "100%", maxWidth: "240px", borderRadius: 6 }}
    >
      {SCENES[target]}
      <Frame />
    </svg>
  );
}

const SAYS: Record<Target, string> = {
  wall: "The whole frame is one evenly lit wall",
  edge: "White paper; a black card on its right half, its edge leaning a little, crosses the middle of the frame",
  lamp: "A bright light on the left, a pale wall, something black on the right",
};

/** The corners of the frame. */
function Frame() {
  return (
    <path
      d="M24 30V14H48M192 14H216V30M216 90V106H192M48 106H24V90"
      fill="none"
      stroke="#4f46c8"
      strokeWidth="3"
      strokeLinecap="round"
    />
  );
}

const SCENES: Record<Target, React.ReactNode> = {
  wall: (
    <>
      <defs>
        <radialGradient id="wall-light">
          <stop offset="0" stopColor="#f4f2ea" />
          <stop offset="1" stopColor="#e6e3d8" />
        </radialGradient>
      </defs>
      <rect width="240" height="120" fill="url(#wall-light)" />
    </>
  ),
  edge: (
    <>
      <rect width="240" height="120" fill="#d8d5ca" />
      <rect x="52" y="8" width="136" height="104" fill="#fff" />
      <path d="M125 8H188V112H116Z" fill="#17171b" />
    </>
  ),
  lamp: (
    <>
      <rect width="240" height="120" fill="#b9b5a8" />
      <circle cx="66" cy="44" r="30" fill="#fff3c4" opacity="0.6" />
      <circle cx="66" cy="44" r="13" fill="#fffdf2" stroke="#c79a1b" strokeWidth="2" />
      <path d="M66 58V106M54 106H78" stroke="#55524a" strokeWidth="4" />
      <rect x="164" y="18" width="60" height="88" fill="#121216" />
    </>
  ),
};
