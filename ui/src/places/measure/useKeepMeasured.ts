import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { filtersQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { asOneAct } from "../../api/undo";
import { sayNotSaved, toaster } from "../../shell/toaster";
import { fieldsOf } from "../kit/FilterSheet";

/** What is kept of a filter's image: with the filter, or with it on one rig. */
export type ImageFigures = Pick<Schemas["StoredFound"], "cornerStops" | "sharpnessLost" | "flare">;

/** What was measured of a filter, and where it is kept. */
export interface Kept {
  filterId: string;
  /** What is true of the filter on any camera. */
  fields?: Partial<Schemas["StoredFilterFields"]>;
  /** What hangs on the camera too: kept as a trial on the rig, or with the filter where no rig is meant. */
  image?: ImageFigures;
  rigId?: string;
  /** What it was measured from. */
  note: string;
}

/** So long may a note of a filter's history be. */
const NOTE_CHARACTERS = 200;

/** Keeps measurements with filters, each with its date and the files it came from. */
export function useKeepMeasured() {
  const queries = useQueryClient();
  const { data: filters = [] } = useQuery(filtersQuery);
  /** The filters that were measured, in words. */
  const named = (all: readonly Kept[]): string => {
    const ids = new Set(all.map((kept) => kept.filterId));
    const title = ids.size === 1 ? filters.find((f) => ids.has(f.id))?.title : undefined;
    return title ?? `${ids.size} filters`;
  };
  const keep = useMutation({
    mutationFn: (all: readonly Kept[]) =>
      asOneAct(`Measure ${named(all)}`, async () => {
        for (const kept of all) await keepOne(kept);
        return all;
      }),
    onSuccess: (all) =>
      toaster.create({ title: `Saved with ${named(all)}`, description: "Every answer uses it from now on" }),
    onError: sayNotSaved,
    // What was stored before a fault is stored.
    onSettled: () => {
      queries.invalidateQueries({ queryKey: filtersQuery.queryKey });
      queries.invalidateQueries({ queryKey: ["bench"] });
    },
  });
  return { filters, keep };
}

async function keepOne({ filterId, fields, image, rigId, note }: Kept): Promise<void> {
  const at = new Date().toISOString();
  if (image && rigId)
    await unwrap(
      api.POST("/api/trials", {
        body: { rigId, filterId, triedAt: at, found: { seated: true, ...image, note: note.slice(0, NOTE_CHARACTERS) } },
      }),
    );
  if (!fields && rigId) return;
  // Read anew: of several measurements that are kept at once, each counts the version on.
  const filter = await unwrap(api.GET("/api/filters/{id}", { params: { path: { id: filterId } } }));
  const history = [...(filter.history ?? []), { at, what: "measured" as const, note: note.slice(0, NOTE_CHARACTERS) }];
  const body = { ...fieldsOf(filter), ...fields, ...(rigId ? {} : image), history };
  await unwrap(
    api.PUT("/api/filters/{id}", { params: { path: { id: filterId }, query: { version: filter.version } }, body }),
  );
}
