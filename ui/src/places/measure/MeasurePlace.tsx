import { Heading, Stack, Text } from "@chakra-ui/react";
import { useEffect } from "react";
import { Navigate, useNavigate, useParams } from "react-router";
import { Choice } from "../../lib/Choice";
import { useWaiting } from "../../lib/handOver";
import { useTitle } from "../../lib/useTitle";
import { CurveView } from "./CurveView";
import { FilterPair } from "./FilterPair";
import { FrameView } from "./FrameView";
import { GyroView } from "./GyroView";
import { LensPair } from "./LensPair";
import { SteppedView } from "./SteppedView";
import { SessionView } from "./session/SessionView";
import { TakeView } from "./TakeView";
import { TelemetryView } from "./TelemetryView";

const KINDS = [
  { value: "frame", name: "A frame" },
  { value: "filter", name: "A filter's strength" },
  { value: "corners", name: "Vignetting" },
  { value: "sharpness", name: "Sharpness" },
  { value: "flare", name: "Flare" },
  { value: "case", name: "A case of filters" },
  { value: "curve", name: "A profile" },
  { value: "take", name: "A clip" },
  { value: "steps", name: "A shutter test" },
  { value: "telemetry", name: "Telemetry" },
  { value: "gyro", name: "Shake" },
] as const;
type Kind = (typeof KINDS)[number]["value"];

/** What does this file, this clip or this reading tell me? */
export function MeasurePlace() {
  useTitle("Measure");
  const navigate = useNavigate();
  const { what } = useParams();
  const kind = KINDS.find((k) => k.value === what)?.value ?? "frame";
  const waiting = {
    frame: useWaiting("frame"),
    take: useWaiting("take"),
    telemetry: useWaiting("telemetry"),
    gyro: useWaiting("gyro"),
  };
  const wanted = (["frame", "take", "telemetry", "gyro"] as const).find((k) => waiting[k]);
  useEffect(() => {
    if (wanted && wanted !== kind) navigate(`/measure/${wanted}`, { replace: true });
  }, [wanted, kind, navigate]);
  if (what !== undefined && what !== kind) return <Navigate to="/measure" replace />;
  return (
    <Stack gap="3">
      <Heading as="h1" size="xl">
        Measure
      </Heading>
      <Choice
        label="What is measured"
        options={KINDS}
        value={kind}
        onChange={(next) => navigate(`/measure/${next}`, { replace: true })}
      />
      <Text color="muted" fontSize="sm">
        Files are read on this device and never leave it. Drop one anywhere.
      </Text>
      <Stack key={kind} gap="3">
        {VIEWS[kind]()}
      </Stack>
    </Stack>
  );
}

const VIEWS: Record<Kind, () => React.ReactNode> = {
  frame: () => <FrameView />,
  filter: () => <FilterPair />,
  corners: () => <LensPair name="corners" />,
  sharpness: () => <LensPair name="sharpness" />,
  flare: () => <LensPair name="flare" />,
  curve: () => <CurveView />,
  case: () => <SessionView />,
  take: () => <TakeView />,
  steps: () => <SteppedView />,
  telemetry: () => <TelemetryView />,
  gyro: () => <GyroView />,
};
