import { Box, Flex, Kbd, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useNavigate } from "react-router";
import { api, unwrap } from "../api/client";
import { camerasQuery, filtersQuery, presetsQuery, shootsQuery, shotsQuery } from "../api/queries";
import { useColorMode } from "../theme/colorMode";
import { openSettings } from "./Settings";
import { SHORTCUTS } from "./shortcuts";
import { toaster } from "./toaster";
import { useUndo } from "./useUndo";

interface Entry {
  name: string;
  note?: string;
  keys?: string[];
  /** Left out for what is only listed. */
  run?: () => void;
}

/** What can be gone to or done, by the letters that are typed. */
export function Found({ onDone }: { onDone: () => void }) {
  const groups = useEntries();
  return (
    <Box
      asChild
      css={{
        "& [cmdk-input]": { width: "100%", height: "52px", padding: "0 16px", fontSize: "lg", bg: "transparent" },
        "& [cmdk-list]": { maxHeight: "60dvh", overflowY: "auto", padding: "8px" },
        "& [cmdk-group-heading]": { color: "muted", fontSize: "sm", fontWeight: "bold", padding: "8px" },
        "& [cmdk-item]": { minHeight: "44px", display: "flex", alignItems: "center", padding: "0 8px", rounded: "md" },
        "& [cmdk-item][data-selected=true]": { bg: "accentSoft" },
      }}
    >
      <Command label="Go to, or do" loop>
        <Command.Input autoFocus placeholder="A place, a shot, a filter, or what to do" />
        <Command.List>
          <Command.Empty>
            <Text p="3" color="muted">
              Nothing is called so.
            </Text>
          </Command.Empty>
          {groups.map(({ heading, entries }) => (
            <Command.Group key={heading} heading={heading}>
              {entries.map(({ name, note, keys, run }, i) => (
                <Command.Item
                  key={`${name} ${note ?? i}`}
                  value={`${heading} ${name} ${note ?? ""} ${i}`}
                  disabled={!run}
                  onSelect={() => {
                    onDone();
                    run?.();
                  }}
                >
                  <Flex gap="2" align="baseline" flex="1" minW="0">
                    <Text truncate>{name}</Text>
                    <Text color="muted" fontSize="sm" truncate>
                      {note}
                    </Text>
                  </Flex>
                  {keys?.map((key) => (key === "–" ? "–" : <Kbd key={key}>{key}</Kbd>))}
                </Command.Item>
              ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </Box>
  );
}

/** What there is, in groups. */
function useEntries(): { heading: string; entries: Entry[] }[] {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: shoots = [] } = useQuery(shootsQuery);
  const { data: shots = [] } = useQuery(shotsQuery);
  const { data: cameras = [] } = useQuery(camerasQuery);
  const { data: filters = [] } = useQuery(filtersQuery);
  const { next, undo } = useUndo();
  const [mode, nextMode] = useColorMode();
  const go = (name: string, to: string, note?: string): Entry => ({
    name,
    run: () => navigate(to),
    ...(note && { note }),
  });
  const shootName = (id: string) => shoots.find((s) => s.id === id)?.name ?? "";
  const goesOn = (ids: readonly string[]) =>
    cameras
      .filter((c) => ids.includes(c.id))
      .map((c) => c.name)
      .join(", ");
  const newShot = async () => {
    const { light } = await queries.fetchQuery(presetsQuery);
    try {
      const shot = await unwrap(api.POST("/api/keep", { body: { line: light, name: "New shot" } }));
      queries.invalidateQueries({ queryKey: shotsQuery.queryKey });
      navigate(`/shot/${shot.id}`);
    } catch (error) {
      toaster.create({ title: "The shot was not made", description: (error as Error).message });
    }
  };
  return [
    {
      heading: "Shots",
      entries: shots.map((s) => go(s.name, `/shot/${s.id}`, shootName(s.shootId))),
    },
    {
      heading: "Places",
      entries: [
        go("Shoots", "/shoot"),
        ...shoots.map((s) => go(`Day of ${s.name}`, `/shoot/${s.id}`)),
        go("Field card", "/card"),
        go("Kit, gear", "/kit"),
        go("Fit", "/kit/fit"),
        go("Coverage", "/kit/coverage"),
        go("Sets", "/kit/sets"),
        go("Labels", "/kit/labels"),
        go("Measure", "/measure"),
        go("Log", "/log"),
        go("Practice", "/practice"),
      ],
    },
    {
      heading: "Actions",
      entries: [
        ...(next ? [{ name: `Undo: ${next}`, keys: ["Ctrl", "Z"], run: () => void undo() }] : []),
        ...(cameras.length > 0 ? [{ name: "New shot", run: () => void newShot() }] : []),
        { name: "Settings: units, install", run: openSettings },
        { name: `Change the theme, now ${mode}`, run: nextMode },
      ],
    },
    {
      heading: "Filters",
      entries: filters.map((f) => go(f.title, "/kit", [f.slot, goesOn(f.cameras)].filter(Boolean).join(", "))),
    },
    {
      heading: "Shortcuts",
      entries: SHORTCUTS.map(([keys, does]) => ({ name: does, keys })),
    },
  ];
}
