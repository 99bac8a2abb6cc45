import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { useNavigate } from "react-router";
import { api, unwrap } from "../api/client";
import { askableQuery, askQuery, shotQuery } from "../api/queries";
import type { Schemas } from "../api/schemas";
import { useComputed } from "../api/useComputed";
import { toaster } from "../shell/toaster";

export type Answer = Schemas["AskAnswer"];
export type Part = Answer["parts"][number];

/**
 * A line, answered while it is typed. The first of the cameras is meant where it names none:
 * the one of that id, else the one that was worked on last. The cameras are fetched when it is wanted.
 */
export function useLine(line: string, cameraId = "", isWanted = true) {
  const { data: cameras } = useQuery({ ...askableQuery, enabled: isWanted });
  const request = useMemo(() => {
    if (!cameras || line.trim() === "") return null;
    const first = cameras.filter((c) => c.held.cameraId === cameraId);
    return { line, cameras: [...first, ...cameras.filter((c) => c.held.cameraId !== cameraId)] };
  }, [line, cameras, cameraId]);
  const { data, error, isPlaceholderData } = useComputed(askQuery(request));
  // An answer to another line may stand on the screen, but nothing is changed by where its parts stood.
  return { answer: request ? data : undefined, error, isCurrent: request !== null && !isPlaceholderData };
}

/** Makes camera, glass and shot of a line, and opens the shot. */
export function useKeep(onDone: () => void, cameraId = "") {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: (line: string) => unwrap(api.POST("/api/keep", { body: { line, cameraId } })),
    onSuccess: async (shot) => {
      queries.setQueryData(shotQuery(shot.id).queryKey, shot);
      onDone();
      await navigate(`/shot/${shot.id}`);
      await queries.invalidateQueries();
    },
    onError: (error) => toaster.create({ title: "The shot was not made", description: error.message, type: "error" }),
  });
}

/** The line with another text in place of a stretch of it, counted in characters as the server counts them. */
export function replaced(line: string, { start, end }: { start: number; end: number }, text: string): string {
  const letters = Array.from(line);
  const before = letters.slice(0, start).join("");
  const after = letters.slice(end).join("");
  const gap = before !== "" && !/[\s>]$/.test(before) && start === letters.length ? " · " : "";
  return before + gap + text + after;
}

/** The line with the light that was seen in place of the light it has, or before all else. */
export function withLight(line: string, parts: readonly Part[], light: string): string {
  const said = parts.filter((p) => p.kind === "light" && !p.assumed);
  const [first, last] = [said[0], said.at(-1)];
  if (first && last) return replaced(line, { start: first.start, end: last.end }, light);
  return line.trim() === "" ? light : `${light} ${/^\s*>/.test(line) ? "" : "· "}${line.trim()}`;
}
