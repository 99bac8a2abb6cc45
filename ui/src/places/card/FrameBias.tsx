import { Stack, Text } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { measureHere } from "../../api/here/measure";
import { PICTURES } from "../../api/here/pixels";
import { FileButton } from "../../lib/FileButton";
import { decimal } from "../../lib/locale";

interface FrameBiasProps {
  /** Hears how far the frame is from middle grey, as a camera's bias would show it; "" where it does not tell. */
  onBias: (bias: string) => void;
}

/** A test frame, shot as the card says: how far it is off is what a locked camera would show. */
export function FrameBias({ onBias }: FrameBiasProps) {
  const read = useMutation({
    mutationFn: (file: File) => measureHere("frame", [{ option: "file", file }]),
    // A frame that says nothing takes back what the one before said.
    onSuccess: ({ meanStops }) => onBias(meanStops == null ? "" : meanStops.toFixed(2)),
    onError: () => onBias(""),
  });
  const frame = read.data;
  return (
    <Stack gap="2">
      <FileButton
        h="60px"
        label="A test frame"
        accept={PICTURES}
        loading={read.isPending}
        onFile={(file) => read.mutate(file)}
      >
        Choose the test frame
      </FileButton>
      {read.error && (
        <Text role="alert" color="breaks">
          {read.error.message}
        </Text>
      )}
      {frame?.refused.map((r) => (
        <Text key={r.code} color="breaks">
          {r.text}
        </Text>
      ))}
      {frame?.meanStops != null && (
        <Text fontSize="lg" data-testid="frame-bias">
          It is {decimal(Math.abs(frame.meanStops), 1)} stops {frame.meanStops < 0 ? "under" : "over"}
          {frame.adviceAtLeast && ", or more: its highlights are clipped"}
        </Text>
      )}
    </Stack>
  );
}
