import { Box, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { loopPictureQuery, loopQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";

interface LoopViewProps {
  /** Null while it is not asked for: it has its room then. */
  request: Schemas["LoopRequest"] | null;
  frame: number;
  /** Its first frame is all that is shown. */
  isStill?: boolean;
  side: "test" | "reference";
  /** What it is called where what it shows is not to be told. */
  blind?: string | undefined;
}

/** One loop, drawn by the core from the shot's own numbers. */
export function LoopView({ request, frame, isStill = false, side, blind }: LoopViewProps) {
  const about = useQuery(loopQuery(request));
  const drawn = useQuery(loopPictureQuery(request && isStill ? { ...request, still: true } : request));
  const canvas = useRef<HTMLCanvasElement>(null);
  const picture = drawn.data?.[frame % drawn.data.length];
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (context && picture) context.drawImage(picture, 0, 0, context.canvas.width, context.canvas.height);
  }, [picture]);
  const fault = about.error ?? drawn.error;
  const isBehind = drawn.isPlaceholderData || about.isPlaceholderData;
  return (
    <Stack gap="0" minW="0" data-testid={`loop-${side}`}>
      <Box position="relative" rounded="md" overflow="hidden" aspectRatio="16 / 9" bg="unknownSoft">
        {fault ? (
          <Text p="3" color="muted">
            It cannot be drawn: {fault.message}
          </Text>
        ) : (
          <>
            {!picture && <Skeleton position="absolute" inset="0" />}
            <canvas
              ref={canvas}
              width={640}
              height={360}
              role="img"
              aria-label={blind ?? (about.data ? `${about.data.name}. Look at ${about.data.lookAt}` : "being drawn")}
              style={{ width: "100%", height: "100%", display: "block", opacity: isBehind ? 0.6 : 1 }}
            />
          </>
        )}
      </Box>
      {blind === undefined && (
        <>
          <Text fontWeight="bold" fontSize={{ lg: "sm" }} lineHeight="1.3">
            {about.data?.name ?? "…"}
          </Text>
          <Text
            fontSize={{ base: "sm", lg: "xs" }}
            lineHeight="1.3"
            minH="2lh" // what it says changes while a shutter is dragged, and nothing below may move
            color="muted"
            data-testid={`look-at-${side}`}
          >
            {about.data && `Look at ${about.data.lookAt}.`}
          </Text>
        </>
      )}
    </Stack>
  );
}
