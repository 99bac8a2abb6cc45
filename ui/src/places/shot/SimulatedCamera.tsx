import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { simulatedCameraQuery, simulatedFrameQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { signed } from "../../lib/format";
import { stopsOf } from "../../lib/glass";
import { NumberField } from "../../lib/NumberField";
import { useSettled } from "../../lib/useSettled";
import type { Bench } from "./draft";

interface SimulatedCameraProps {
  bench: Bench;
  fps: string;
  /** The light to start from, in EV at ISO 100. */
  ev: number;
  /** Ids of the loose glass that is on. */
  glass: readonly string[];
  onRead: (entry: Schemas["Entry"]) => void;
}

/** A stand-in for the camera: point it at a light, and take what it shows as a reading. */
export function SimulatedCamera({ bench, fps, ev, glass, onRead }: SimulatedCameraProps) {
  const [isOpen, setOpen] = useState(false);
  const [scene, setScene] = useState<number | undefined>(Number(ev.toFixed(1)));
  if (!isOpen)
    return (
      <Button alignSelf="flex-start" size="sm" variant="ghost" onClick={() => setOpen(true)}>
        No camera at hand: use the simulated one
      </Button>
    );
  const on = bench.filters.filter((f) => glass.includes(f.id) || bench.camera.mounted.includes(f.id));
  const request: Schemas["CameraRequest"] = {
    camera: bench.optics,
    ...(bench.camera.profile && { profile: bench.camera.profile }),
    fps,
    ev100: scene ?? 0,
    glassStops: on.reduce((sum, f) => sum + stopsOf(f), 0),
  };
  return (
    <Stack gap="2" borderWidth="1px" borderColor="edge" rounded="md" p="3" role="group" aria-label="Simulated camera">
      <NumberField label="light of the scene, EV" w="170px" value={scene} onChange={setScene} />
      <Display
        request={request}
        onRead={(shown) => onRead({ shutter: shown.shutter, iso: shown.iso, glass: [...glass] })}
      />
    </Stack>
  );
}

function Display({
  request,
  onRead,
}: {
  request: Schemas["CameraRequest"];
  onRead: (shown: Schemas["CameraAnswer"]) => void;
}) {
  const { data, error } = useQuery(simulatedCameraQuery(request));
  const settled = useSettled(request, 250);
  const frame = useQuery(simulatedFrameQuery(settled)).data;
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (context && frame) context.drawImage(frame, 0, 0, context.canvas.width, context.canvas.height);
  }, [frame]);
  if (error) return <Text color="breaks">{error.message}</Text>;
  if (!data) return null;
  return (
    <Flex gap="3" wrap="wrap" align="start">
      <canvas
        ref={canvas}
        width={320}
        height={180}
        role="img"
        aria-label={`Test frame of the simulated camera at ${data.shutter}, ISO ${data.iso}`}
        style={{ width: 240, height: 135, borderRadius: 6 }}
      />
      <Box flex="1" minW="160px">
        <Text fontWeight="bold" data-testid="simulated-shows">
          {data.shutter} · ISO {data.iso}
        </Text>
        <Text fontSize="sm" color="muted">
          simulated; moves {data.moves === "iso" ? "ISO" : "the shutter"} first
          {Math.abs(data.errorStops) >= 0.05 && `; ${signed(data.errorStops)} stops it cannot make good`}
        </Text>
        <Button size="sm" mt="1" variant="outline" onClick={() => onRead(data)}>
          Take this reading
        </Button>
      </Box>
    </Flex>
  );
}
