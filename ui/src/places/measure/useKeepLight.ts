import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import type { Schemas } from "../../api/schemas";
import { sayNotSaved, toaster } from "../../shell/toaster";

/** Keeps the light that a clip speaks of as a reading of its shot's shoot. */
export function useKeepLight(shot: Schemas["StoredShot"] | undefined, name: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ ev100, spreadStops }: Schemas["MeasuredBesideLight"]) =>
      unwrap(
        api.POST("/api/light-readings", {
          body: {
            shootId: shot?.shootId ?? "",
            takenAt: new Date().toISOString(),
            kind: "auto",
            source: name.startsWith("simulated") ? "simulated" : "real",
            words: `${name}: by the shutter that auto exposure chose`.slice(0, 200),
            ev100: Number(ev100.toFixed(2)),
            spreadStops: Number(spreadStops.toFixed(2)),
          },
        }),
      ),
    onSuccess: () => {
      toaster.create({ title: "Saved as a reading of the day" });
      for (const key of ["records", "day"]) queries.invalidateQueries({ queryKey: [key] });
    },
    onError: sayNotSaved,
  });
}
