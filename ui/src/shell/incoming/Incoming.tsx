import { Box, Button, Flex, List, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { useMatch, useNavigate } from "react-router";
import { shootsQuery, statusQuery } from "../../api/queries";
import { bytes } from "../../lib/format";
import { handOver, type Reader } from "../../lib/handOver";
import { Sheet } from "../../lib/Sheet";
import { type Came, type Kind, recognise } from "./recognise";
import { useComing } from "./useComing";

/** What each kind is called, and what is said of a kind that nothing here reads. */
const SAYS: Record<Kind, string> = {
  kit: "A table of filters, or a kit",
  archive: "A zip file, read as an archive of everything",
  track: "A GPX track: the place and the days of a shoot",
  still: "A photo: its exposure, or the light it was taken in",
  plan: "A plan as a calendar: it goes out to others. Plans come in whole, in an archive",
  line: "A line: light, look, motion, filters",
  picture: "A picture: clipping, middle grey, advice in stops",
  raw: "A raw file: the light it was taken in. Its pixels are not read, save it as JPEG or PNG for those",
  clip: "A clip: shutter, blur, shake, flicker as they came out",
  telemetry: "A log of the exposure: the shutter over time",
  gyro: "A log of a gyro: how the camera shook",
  unknown: "Not recognised. Kits (CSV, JSON), archives (zip), GPX tracks, pictures and logs are read",
};

/** Files and tables that are dropped, pasted or shared, wherever one is: what each is, and what reads it. */
export function Incoming() {
  const [all, setAll] = useState<Came[]>([]);
  const isOver = useComing(
    useCallback((files: readonly File[]) => void Promise.all(files.map(recognise)).then(setAll), []),
  );
  return (
    <>
      {isOver && (
        <Box
          position="fixed"
          inset="2"
          zIndex="overlay"
          borderWidth="4px"
          borderStyle="dashed"
          borderColor="accent"
          rounded="xl"
          pointerEvents="none"
          display="grid"
          placeItems="center"
        >
          <Text bg="panel" p="4" rounded="lg" fontSize="xl" fontWeight="bold">
            Drop it: you see what it is before anything is stored
          </Text>
        </Box>
      )}
      <Sheet title="What came in" isOpen={all.length > 0} onOpen={(isOpen) => isOpen || setAll([])}>
        <List.Root variant="plain" gap="4" pb="4">
          {all.map((came, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the list is never reordered, and files can be alike.
            <List.Item key={i} display="block">
              <OneFile came={came} onDone={() => setAll(all.filter((other) => other !== came))} />
            </List.Item>
          ))}
        </List.Root>
      </Sheet>
    </>
  );
}

function OneFile({ came, onDone }: { came: Came; onDone: () => void }) {
  const { file, kind, line } = came;
  return (
    <Stack gap="1">
      <Text fontWeight="bold" overflowWrap="anywhere">
        {line ?? `${file.name}, ${bytes(file.size)}`}
      </Text>
      <Text color="muted">{SAYS[kind]}</Text>
      <Ways came={came} onDone={onDone} />
    </Stack>
  );
}

/** What can be done with it. */
function Ways({ came: { file, kind }, onDone }: { came: Came; onDone: () => void }) {
  const navigate = useNavigate();
  const here = useMatch("/shoot/:id")?.params.id;
  const { data: shoots = [] } = useQuery(shootsQuery);
  const { data: status } = useQuery(statusQuery);
  const give = (reader: Reader, to?: string) => {
    onDone();
    handOver(reader, file);
    if (to) navigate(to);
  };
  switch (kind) {
    case "kit":
      return (
        <Way onTake={() => give("kit", "/kit")} isMain>
          Look at it in Kit
        </Way>
      );
    case "archive":
      return status?.atDesk ? (
        <Way onTake={() => give("archive")} isMain>
          See what it brings
        </Way>
      ) : (
        <Text>Archives are brought in at the desk.</Text>
      );
    case "line":
      return (
        <Way onTake={() => give("line")} isMain>
          Answer it
        </Way>
      );
    case "picture":
      return (
        <Way onTake={() => give("frame", "/measure/frame")} isMain>
          Read the frame
        </Way>
      );
    case "clip":
      return (
        <Way onTake={() => give("take", "/measure/take")} isMain>
          Measure the clip
        </Way>
      );
    case "telemetry":
    case "gyro":
      return (
        <Way onTake={() => give(kind, `/measure/${kind}`)} isMain>
          Read the log
        </Way>
      );
    case "track":
    case "raw":
    case "still": {
      const sorted = shoots.toSorted((a, b) => Number(b.id === here) - Number(a.id === here));
      return sorted.length > 0 || kind === "still" ? (
        <Flex gap="2" wrap="wrap">
          {kind === "still" && (
            <Way onTake={() => give("frame", "/measure/frame")} isMain>
              Read the frame
            </Way>
          )}
          {sorted.slice(0, 4).map((shoot, i) => (
            <Way
              key={shoot.id}
              onTake={() => give(kind === "raw" ? "still" : kind, `/shoot/${shoot.id}`)}
              isMain={kind === "track" && i === 0}
            >
              {kind === "track" ? "Place of" : "Light of"} {shoot.name}
            </Way>
          ))}
        </Flex>
      ) : (
        <Text>Make a shoot first: it is read into its day.</Text>
      );
    }
    default:
      return null;
  }
}

function Way({ onTake, isMain, children }: { onTake: () => void; isMain?: boolean; children: React.ReactNode }) {
  return (
    <Button alignSelf="flex-start" minH="44px" variant={isMain ? "solid" : "outline"} onClick={onTake}>
      {children}
    </Button>
  );
}
