import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useDeferredValue } from "react";
import { useNavigate } from "react-router";
import { api, unwrap } from "../api/client";
import { camerasQuery, filtersQuery, presetsQuery, shootsQuery, shotsQuery } from "../api/queries";
import { useColorMode } from "../theme/colorMode";
import style from "./Found.module.css";
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

/** So many groups stand in the window when it opens; the others follow. */
const FIRST = 3;

/** What can be gone to or done, by the letters that are typed. */
export function Found({ onDone }: { onDone: () => void }) {
  const all = useEntries();
  const groups = useDeferredValue(all, all.slice(0, FIRST));
  return (
    <Command label="Go to, or do" loop className={style.found}>
      <Command.Input autoFocus placeholder="A place, a shot, a filter, or what to do" />
      <Command.List>
        <Command.Empty className={style.none}>Nothing is called so.</Command.Empty>
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
                <span className={style.name}>{name}</span>
                <span className={style.note}>{note}</span>
                {keys?.map((key) =>
                  key === "–" ? (
                    "–"
                  ) : (
                    <kbd key={key} className={style.key}>
                      {key}
                    </kbd>
                  ),
                )}
              </Command.Item>
            ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command>
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
