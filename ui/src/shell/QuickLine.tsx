import { Box, Input, InputGroup, Kbd, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { useMatch, useNavigate } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { benchQuery, camerasQuery, lineQuery, presetsQuery, shootsQuery, shotQuery, shotsQuery } from "../api/queries";
import { signed } from "../lib/format";
import { byId, glassName } from "../lib/glass";
import { errorWords, settingWords } from "../lib/option";
import { StateMark } from "../lib/StateMark";
import { useHotkeys } from "../lib/useHotkeys";
import { toaster } from "./toaster";

/**
 * One line that asks a whole shot: f2 1/1250 iso50 > 50fps. The answer stands
 * under it while it is typed, on the camera of the open shot or the first one;
 * Enter makes it a shot.
 */
export function QuickLine() {
  const [line, setLine] = useState("");
  const [isOpen, setOpen] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const bench = useQuickBench();
  const { data: presets } = useQuery(presetsQuery);
  const { data, error } = useQuery(lineQuery(presets ? requestOf(line, bench, presets.target) : null));
  const open = useOpenShot(bench, () => {
    setLine("");
    setOpen(false);
    input.current?.blur();
  });
  useHotkeys(
    useCallback((key) => {
      if (key !== "/") return false;
      input.current?.focus();
      return true;
    }, []),
  );
  return (
    <Box
      position="relative"
      flex="1"
      maxW="560px"
      onBlur={(e) => e.currentTarget.contains(e.relatedTarget) || setOpen(false)}
    >
      <InputGroup startElement={<Kbd aria-hidden>/</Kbd>}>
        <Input
          ref={input}
          aria-label="Quick line: a reading, then > and the look"
          aria-describedby="quick-answer"
          placeholder="f2 1/1250 iso50 > 50fps"
          value={line}
          h="44px"
          bg="panel"
          borderColor="edge"
          _placeholder={{ color: "muted" }}
          autoComplete="off"
          autoCapitalize="off"
          spellCheck={false}
          maxLength={100}
          onFocus={() => setOpen(true)}
          onChange={(e) => {
            setLine(e.target.value);
            setOpen(true);
          }}
          onKeyDown={(e) => {
            if (e.key === "Escape") e.currentTarget.blur();
            if (e.key === "Enter" && data && !error && line.trim()) open.mutate(data);
          }}
        />
      </InputGroup>
      <Box
        id="quick-answer"
        hidden={!isOpen || line.trim() === ""}
        position="absolute"
        top="48px"
        insetX="0"
        bg="panel"
        borderWidth="1px"
        borderColor="accent"
        rounded="lg"
        shadow="lg"
        p="3"
        zIndex="15"
        aria-live="polite"
        data-testid="quick-answer"
      >
        {error ? <Text color="muted">{error.message}</Text> : data && <LineAnswer answer={data} bench={bench} />}
      </Box>
    </Box>
  );
}

type Bench = Schemas["Bench"];

/** The bench of the open shot's camera, else of the first camera. */
function useQuickBench(): Bench | undefined {
  const id = useMatch("/shot/:id")?.params.id ?? "";
  const { data: shot } = useQuery({ ...shotQuery(id), enabled: id !== "" });
  const { data: cameras } = useQuery(camerasQuery);
  const cameraId = shot?.cameraId ?? cameras?.[0]?.id ?? "";
  return useQuery(benchQuery(cameraId)).data;
}

function requestOf(line: string, bench: Bench | undefined, target: string): Schemas["LineRequest"] | null {
  if (line.trim() === "") return null;
  if (!bench) return { line };
  const fps = bench.camera.rates[0];
  return {
    line,
    camera: bench.optics,
    kit: bench.kit,
    mounted: bench.camera.mounted,
    ...(fps && { look: { fps, target } }),
  };
}

function LineAnswer({ answer, bench }: { answer: Schemas["LineAnswer"]; bench: Bench | undefined }) {
  const { shot, look } = answer;
  if (!shot || !bench) {
    return <Text>{`${look.fps} fps, ${look.target}. Add a camera in Kit to be told which glass.`}</Text>;
  }
  return (
    <Stack gap="1.5">
      <Text color="muted" fontSize="sm">
        {`${bench.camera.name} · ${shot.reading.text} · ${look.fps} fps ${look.target}`}
      </Text>
      <Text fontSize="2xl" fontWeight="bold" lineHeight="1.1">
        {glassName(shot.chosen.filters, byId(bench), shot.chosen.settings)}
      </Text>
      <Text>
        {settingWords(shot.chosen)} · <b>{signed(shot.chosen.leftStops)}</b>
        {errorWords(shot.chosen)}
      </Text>
      <StateMark state={shot.chosen.state}>{shot.chosen.reasons[0]}</StateMark>
      <Text color="muted" fontSize="sm">
        <Kbd>Enter</Kbd> makes it a shot
      </Text>
    </Stack>
  );
}

/** Makes a shot of the line, in the shoot that was worked on last, and opens it. */
function useOpenShot(bench: Bench | undefined, onDone: () => void) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: async ({ light, look }: Schemas["LineAnswer"]) => {
      if (!bench) throw new Error("Add a camera in Kit first.");
      const shoots = await queries.fetchQuery(shootsQuery);
      const shoot = shoots.at(-1) ?? (await unwrap(api.POST("/api/shoots", { body: { name: "My shoot" } })));
      const body = {
        shootId: shoot.id,
        cameraId: bench.camera.id,
        name: "Quick shot",
        look,
        light,
        choices: { mounted: bench.camera.mounted },
      };
      return unwrap(api.POST("/api/shots", { body }));
    },
    onSuccess: (shot) => {
      queries.setQueryData(shotQuery(shot.id).queryKey, shot);
      queries.invalidateQueries({ queryKey: shotsQuery.queryKey });
      queries.invalidateQueries({ queryKey: shootsQuery.queryKey });
      onDone();
      navigate(`/shot/${shot.id}`);
    },
    onError: (error) => toaster.create({ title: "The shot was not made", description: error.message }),
  });
}
