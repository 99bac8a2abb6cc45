import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { putIn } from "../../api/putIn";
import { rigsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { sayNotSaved, toaster } from "../../shell/toaster";

/** Stores what is known of how a rig moves: its shots are judged by it. */
export function useKeepCraft(rig: Schemas["StoredRig"] | undefined) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (craft: Schemas["Craft"]) => {
      if (!rig) throw new Error("Choose a camera");
      const { id, cameraId, name, housing, way, measures, recipe, sources, version } = rig;
      const body = {
        cameraId,
        name,
        housing,
        way,
        measures,
        ...(recipe && { recipe }),
        ...(sources && { sources }),
        craft,
      };
      return unwrap(api.PUT("/api/rigs/{id}", { params: { path: { id }, query: { version } }, body }));
    },
    onSuccess: (rig) => {
      putIn(queries, rigsQuery, rig);
      toaster.create({ title: `Saved with ${rig.name}`, description: "Its shots are judged by it" });
      queries.invalidateQueries({ queryKey: ["bench"] });
      queries.invalidateQueries({ queryKey: ["shots"] });
    },
    onError: sayNotSaved,
  });
}
