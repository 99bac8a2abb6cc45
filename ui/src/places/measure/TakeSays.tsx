import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { signed } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";

type Take = Schemas["MeasuredTakeAnswer"];
type Why = NonNullable<Take["shutter"]["why"]>;

/** Why something cannot be told, and what would tell it. */
const WHY: Record<Why, string> = {
  motion: "cannot tell: too little movement, or too even. A part with a pan that starts or stops tells",
  texture: "cannot tell: nothing in the picture to follow",
  tracking: "cannot tell: the parts of the picture do not move together",
  clipped: "cannot tell: too much is clipped",
  stabilised: "cannot tell: the clip was stabilised after it was exposed",
  vibration: "cannot tell: the picture wobbles",
  short: "cannot tell: too short",
  view: "choose a shot whose camera's field of view is known",
  flicker: "cannot tell: the light flickers",
  standing: "cannot tell: bands that stand still belong to the scene",
  share: "cannot tell without the shutter",
};

/** What a clip says, each figure with its error or with why it cannot be told, beside what was meant. */
export function TakeSays({ take }: { take: Take }) {
  const {
    shutter,
    shake,
    ghost,
    strobe,
    flicker,
    wobble,
    exposure,
    motion,
    fps,
    frames,
    duplicates,
    drops,
    gaps,
    cuts,
  } = take;
  return (
    <Stack gap="3" data-testid="take-says">
      <Figure
        name="Shutter"
        why={shutter.why}
        value={
          shutter.share != null
            ? `${shutter.atLeast ? "at least " : ""}${decimal(shutter.angleDeg ?? 0, 0)}° ±${decimal(360 * shutter.se, 0)}`
            : undefined
        }
        more={[
          shutter.shutterS != null && `${shutterText(shutter.shutterS)} at ${decimal(fps, 0)} frames a second`,
          shutter.atLeast && "compression evens out sharpness",
          shutter.expected != null && `meant: ${decimal(360 * shutter.expected, 0)}°`,
        ]}
      />
      <Figure
        name="Shake"
        why={shake.why}
        value={shake.degS != null ? `${decimal(shake.degS, 1)} ±${decimal(shake.se, 1)} °/s` : undefined}
        more={[
          shake.peakHz != null && `strongest at ${decimal(shake.peakHz, 1)} Hz`,
          `moves ${decimal(motion.speedPx, 1)} px a frame`,
        ]}
      />
      <Figure
        name="Stabiliser"
        why={ghost.why}
        value={ghost.stabilised ? "ghosting" : ghost.blurPx != null ? "no ghosting seen" : undefined}
        more={[ghost.stabilised && `${decimal(ghost.blurPx ?? 0, 1)} px of blur that no movement explains`]}
      />
      <Figure
        name="Strobing"
        why={strobe.why}
        value={strobe.strobes == null ? undefined : strobe.strobes ? "strobes" : "none"}
        more={[strobe.stepPx != null && `${decimal(strobe.stepPx, 1)} px from frame to frame`]}
      />
      <Figure
        name="Flicker"
        why={flicker.why}
        value={flicker.depth == null ? undefined : flicker.depth > 0 ? `${decimal(100 * flicker.depth, 0)} %` : "none"}
        more={[
          flicker.beatHz != null &&
            `beats at ${decimal(flicker.beatHz, 1)} Hz, ${decimal(flicker.bands ?? 0, 1)} bands`,
          flicker.pulseHz != null && `lights at ${decimal(flicker.pulseHz, 0)} Hz`,
          flicker.expected != null && `the mains would beat at ${decimal(flicker.expected, 1)} Hz`,
        ]}
      />
      <Figure
        name="Wobble"
        why={wobble.why}
        value={wobble.px == null ? undefined : wobble.px > 0 ? `${decimal(wobble.px, 1)} px` : "none"}
        more={[wobble.hz != null && `shaken at ${decimal(wobble.hz, 0)} Hz`]}
      />
      <Figure
        name="Exposure"
        value={`${signed(exposure.driftStops)} stops of its own`}
        more={[
          exposure.steps.length > 0 && `${exposure.steps.length} sudden steps`,
          `clipped ${decimal(100 * exposure.blownShare, 1)} %, black ${decimal(100 * exposure.crushedShare, 1)} %`,
        ]}
      />
      <Text color="muted" fontSize="sm">
        {frames} frames at {decimal(fps, 2)}
        {duplicates.length > 0 && `; repeated: ${duplicates.join(", ")}`}
        {drops.length > 0 && `; missing before: ${drops.join(", ")}`}
        {cuts.length > 0 && `; another picture from ${cuts.join(", ")} on`}
        {gaps.length > 0 && `; the clock jumps before ${gaps.join(", ")}`}
      </Text>
    </Stack>
  );
}

interface FigureProps {
  name: string;
  value: string | undefined;
  why?: Why | undefined;
  more: readonly (string | false)[];
}

function Figure({ name, value, why, more }: FigureProps) {
  return (
    <Flex gap="3" align="baseline">
      <Text color="muted" minW="84px">
        {name}
      </Text>
      <Box>
        <Text fontWeight="bold" fontSize="lg" color={value === undefined ? "unknown" : undefined}>
          {value ?? (why ? WHY[why] : "cannot tell")}
        </Text>
        {value !== undefined && <Text color="muted">{more.filter(Boolean).join("; ")}</Text>}
      </Box>
    </Flex>
  );
}
