import { Button, Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { measureHere } from "../../api/here/measure";
import { handOver } from "../../lib/handOver";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";

/** What the subtitles inside a clip say of its exposure, in a sentence; all of it is a press away. */
export function ClipSubtitles({ text, name }: { text: string; name: string }) {
  const file = useMemo(() => new File([text], `${name}.srt`), [text, name]);
  const { data } = useQuery({
    queryKey: ["clip-subtitles", name, text.length],
    queryFn: () => measureHere("telemetry", [{ option: "file", file }]),
    retry: false,
  });
  const shutter = data?.shutter;
  return (
    <Flex gap="3" align="center" wrap="wrap" data-testid="clip-subtitles">
      <Text>
        {shutter
          ? `Its subtitles say ${shutterText(shutter.fastestS)} to ${shutterText(shutter.slowestS)}${
              data.withinShare == null ? "" : `, ${decimal(100 * data.withinShare, 0)} % of the time on target`
            }.`
          : "It has subtitles, which say nothing of the exposure."}
      </Text>
      {shutter && (
        <Button variant="outline" onClick={() => handOver("telemetry", file)}>
          Read them as telemetry
        </Button>
      )}
    </Flex>
  );
}
