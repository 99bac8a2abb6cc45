import { Box, Button, Flex, List, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Measured } from "../../api/here/measure";
import { PICTURES } from "../../api/here/pixels";
import type { Schemas } from "../../api/schemas";
import { FLARE_GRADES } from "../../lib/flare";
import { decimal } from "../../lib/locale";
import { Panel } from "../../lib/Panel";
import { Columns } from "./Columns";
import { CurveField } from "./CurveField";
import { curvePart } from "./curves";
import { FilesField } from "./FilesField";
import { KeepWith } from "./KeepWith";
import { SimulatedPair } from "./SimulatedPair";
import type { Target } from "./session/steps";
import { TargetDrawing } from "./TargetDrawing";
import { Told } from "./Told";
import { useMeasure } from "./useMeasure";

type Name = "corners" | "sharpness" | "flare";

/** What to photograph, and how, for each. */
const RECIPES: Record<Name, { heading: string; steps: readonly string[] }> = {
  corners: {
    heading: "A wall of even light",
    steps: [
      "Fill the frame with the open sky through a white sheet, or a lit wall.",
      "Widest view, focus and exposure locked, camera fixed.",
      "One frame without the filter, one with it, a stop or two brighter.",
    ],
  },
  sharpness: {
    heading: "A slanted edge",
    steps: [
      "Black card on white paper, its edge leaning by about 5°, in the middle of the frame.",
      "Sharpening off or low, focus locked, on a tripod.",
      "One frame without the filter, one with it.",
    ],
  },
  flare: {
    heading: "A bright light beside a dark part",
    steps: [
      "Flare: a bright light in the frame, and something black well away from it.",
      "Haze: no light in the frame, bright sky over something black. The sun stays out of the frame.",
      "Expose so that the black still shows; the light itself may clip.",
      "One frame without the filter, one with it.",
    ],
  },
};

/** What the simulated camera is pointed at for each. */
const TARGETS: Record<Name, Target> = { corners: "wall", sharpness: "edge", flare: "lamp" };

/** One frame without a filter and one with it: its corners, its sharpness or its veil. */
export function LensPair({ name }: { name: Name }) {
  const [without, setWithout] = useState<File>();
  const [withIt, setWith] = useState<File>();
  const [curve, setCurve] = useState("");
  const measure = useMeasure(name);
  const { heading, steps } = RECIPES[name];
  const note = [without?.name, withIt?.name].filter(Boolean).join(", ");
  return (
    <Columns>
      <Panel heading={heading} note="one minute">
        <Stack gap="3">
          <Flex gap="4" direction={{ base: "column", md: "row" }}>
            <List.Root as="ol" ps="5" flex="1">
              {steps.map((step) => (
                <List.Item key={step}>{step}</List.Item>
              ))}
            </List.Root>
            <TargetDrawing target={TARGETS[name]} />
          </Flex>
          {name === "sharpness" && (
            <Button asChild variant="outline" alignSelf="flex-start">
              <a href="/api/measure/target.pdf" download>
                Print the target
              </a>
            </Button>
          )}
          <FilesField
            label="Without the filter"
            files={without ? [without] : []}
            onFiles={([f]) => setWithout(f)}
            accept={PICTURES}
          />
          <FilesField
            label="With the filter"
            files={withIt ? [withIt] : []}
            onFiles={([f]) => setWith(f)}
            accept={PICTURES}
          />
          <CurveField value={curve} onChange={setCurve} />
          <Button
            alignSelf="flex-start"
            disabled={!without || !withIt}
            onClick={() =>
              without &&
              withIt &&
              measure.mutate([
                { option: "without", file: without },
                { option: "with", file: withIt },
                ...curvePart(curve),
              ])
            }
          >
            Measure
          </Button>
        </Stack>
      </Panel>
      <Panel heading="Result">
        <Stack gap="3" data-testid={`${name}-result`}>
          {measure.isIdle && <SimulatedPair target={TARGETS[name]} />}
          <Told measure={measure} found={measure.data} />
          {measure.data && measure.data.refused.length === 0 && (
            <Result name={name} answer={measure.data} note={note} />
          )}
        </Stack>
      </Panel>
    </Columns>
  );
}

function Result({ name, answer, note }: { name: Name; answer: Measured[Name]; note: string }) {
  if (name === "corners") return <Corners answer={answer as Measured["corners"]} note={note} />;
  if (name === "sharpness") return <Sharpness answer={answer as Measured["sharpness"]} note={note} />;
  return <Flare answer={answer as Measured["flare"]} note={note} />;
}

const CORNERS: Record<string, string> = {
  topLeft: "top left",
  topRight: "top right",
  bottomLeft: "bottom left",
  bottomRight: "bottom right",
};

function Big({ children }: { children: React.ReactNode }) {
  return (
    <Text fontSize="3xl" fontWeight="bold" lineHeight="1.1">
      {children}
    </Text>
  );
}

function Corners({ answer, note }: { answer: Schemas["MeasuredCornersAnswer"]; note: string }) {
  const { cornerStops = 0, profile, crooked, darkest, asymmetryStops } = answer;
  const lost = Math.max(0, cornerStops ?? 0);
  const atLeast = profile.at(-1)?.atLeast ? "at least " : "";
  return (
    <Box>
      <Big>
        {atLeast}
        {decimal(lost, 2)} stops in the corners
      </Big>
      {crooked && darkest && (
        <Text color="breaks">
          The filter sits askew: {CORNERS[darkest]} is darkest, {decimal(asymmetryStops ?? 0, 1)} stops beyond the
          least. Seat it and shoot again.
        </Text>
      )}
      <Profile profile={profile} />
      <KeepWith
        image={{ cornerStops: Number(Math.min(20, lost).toFixed(2)) }}
        note={`vignetting ${decimal(lost, 2)} stops from ${note}`}
      />
    </Box>
  );
}

/** What is lost from the middle to the corner. */
function Profile({ profile }: { profile: Schemas["MeasuredCornersAnswer"]["profile"] }) {
  const most = Math.max(1, ...profile.map((p) => p.stops));
  const points = profile.map((p) => `${p.radius * 300},${10 + (Math.max(0, p.stops) / most) * 90}`).join(" ");
  return (
    <svg
      viewBox="0 0 310 116"
      role="img"
      aria-label={`Loss from the middle to the corner, to ${decimal(most, 1)} stops`}
      style={{ width: "100%", maxWidth: "420px" }}
    >
      <path d="M0 10H300M300 10V110" stroke="currentColor" opacity={0.3} fill="none" />
      <polyline points={points} fill="none" stroke="currentColor" strokeWidth={2} />
    </svg>
  );
}

function Sharpness({ answer, note }: { answer: Schemas["MeasuredSharpnessAnswer"]; note: string }) {
  const { without, with: withIt, lossPercent, addedBlurPx } = answer;
  if (!without || !withIt || lossPercent == null) return null;
  return (
    <Box>
      <Big>{decimal(Math.max(0, lossPercent), 0)} % of sharpness lost</Big>
      <Text>
        MTF50 {decimal(withIt.mtf50Cpp, 3)} against {decimal(without.mtf50Cpp, 3)} cycles a pixel; it adds{" "}
        {decimal(addedBlurPx ?? 0, 1)} px of blur
      </Text>
      <KeepWith
        image={{ sharpnessLost: Number(Math.min(100, Math.max(0, lossPercent)).toFixed(1)) }}
        note={`sharpness loss ${decimal(lossPercent, 0)} % from ${note}`}
      />
    </Box>
  );
}

const SPREADS: Record<string, string> = {
  halo: "A halo about the light, as mist filters make it",
  veil: "A veil all over, as grease or a stick-on makes it",
  none: "No veil to see",
};

function Flare({ answer, note }: { answer: Schemas["MeasuredFlareAnswer"]; note: string }) {
  const { veilShare, liftStops, contrastStops, spread, grade } = answer;
  if (veilShare == null || grade == null) return null;
  return (
    <Box>
      <Big>
        {decimal(100 * Math.max(0, veilShare), 1)} % veil: {FLARE_GRADES[grade]}
      </Big>
      {spread && <Text>{SPREADS[spread]}</Text>}
      <Text>
        The dark comes up by {decimal(Math.max(0, liftStops ?? 0), 1)} stops
        {contrastStops && `; contrast ${decimal(contrastStops.with, 1)} of ${decimal(contrastStops.without, 1)} stops`}
      </Text>
      <KeepWith image={{ flare: grade }} note={`veil ${decimal(100 * Math.max(0, veilShare), 1)} % from ${note}`} />
    </Box>
  );
}
