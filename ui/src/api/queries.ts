import { infiniteQueryOptions, keepPreviousData, queryOptions, skipToken } from "@tanstack/react-query";
import { api, computed, unwrap } from "./client";
import { compute } from "./compute";
import { everyPart } from "./everyPart";
import type { paths } from "./schema.gen";
import type { Schemas } from "./schemas";

/** One factory per thing the server has: its key, how it is fetched, how long it is fresh. */

export const statusQuery = queryOptions({
  queryKey: ["status"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/status", { signal })),
  staleTime: Number.POSITIVE_INFINITY,
});

/** Whether this device is let in. */
export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/session", { signal })),
  staleTime: Number.POSITIVE_INFINITY,
});

/** The devices that are let in. */
export const devicesQuery = queryOptions({
  queryKey: ["devices"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/devices", { signal })),
});

/** What was deleted and can be brought back. */
export const binQuery = queryOptions({
  queryKey: ["bin"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/bin", { signal })),
});

/** The cameras that a line may name, with their glass and what their last shots asked. */
export const askableQuery = queryOptions({
  queryKey: ["bench", "askable"],
  queryFn: async ({ signal }) => (await unwrap(api.GET("/api/askable", { signal }))).items,
});

/** What was done in the field on a shoot, the latest first. */
export const shootLogQuery = (id: string) =>
  queryOptions({
    queryKey: ["field-log", id],
    queryFn: ({ signal }) =>
      everyPart((query) => unwrap(api.GET("/api/shoots/{id}/log", { params: { path: { id }, query }, signal }))),
  });

/** How long the log of the field is. */
export const fieldLogQuery = queryOptions({
  queryKey: ["field-log"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/field-log", { signal })),
});

/** The copies of the data file. */
export const backupsQuery = queryOptions({
  queryKey: ["backups"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/backups", { signal })),
});

export const camerasQuery = queryOptions({
  queryKey: ["cameras"],
  queryFn: ({ signal }) => everyPart((query) => unwrap(api.GET("/api/cameras", { params: { query }, signal }))),
});

export const filtersQuery = queryOptions({
  queryKey: ["filters"],
  queryFn: ({ signal }) => everyPart((query) => unwrap(api.GET("/api/filters", { params: { query }, signal }))),
});

export const shootsQuery = queryOptions({
  queryKey: ["shoots"],
  queryFn: ({ signal }) => everyPart((query) => unwrap(api.GET("/api/shoots", { params: { query }, signal }))),
});

export const shotsQuery = queryOptions({
  queryKey: ["shots"],
  queryFn: ({ signal }) => everyPart((query) => unwrap(api.GET("/api/shots", { params: { query }, signal }))),
});

export const shotQuery = (id: string) =>
  queryOptions({
    queryKey: ["shot", id],
    queryFn: ({ signal }) => unwrap(api.GET("/api/shots/{id}", { params: { path: { id } }, signal })),
    // An open shot is edited; fetching it again would pull it from under the hands.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });

export const readingsQuery = (id: string) =>
  queryOptions({
    queryKey: ["readings", id],
    queryFn: async ({ signal }) =>
      (await unwrap(api.GET("/api/shots/{id}/readings", { params: { path: { id } }, signal }))).items,
  });

/** Held as a rig of that id, or as the camera's first. */
export const benchQuery = (cameraId: string, rig = "") =>
  queryOptions({
    queryKey: ["bench", cameraId, rig],
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/cameras/{id}/bench", { params: { path: { id: cameraId }, query: { rig } }, signal })),
    enabled: cameraId !== "",
  });

export const coverageQuery = (cameraId: string, rig: string, shoot: string) =>
  queryOptions({
    // Beside the bench: what changes one changes the other.
    queryKey: ["bench", cameraId, "coverage", rig, shoot],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/cameras/{id}/coverage", { params: { path: { id: cameraId }, query: { rig, shoot } }, signal }),
      ),
    enabled: cameraId !== "",
  });

/** The packs of filters that are considered. */
export const packsQuery = queryOptions({
  // Beside the benches, as coverage weighs them.
  queryKey: ["bench", "packs"],
  queryFn: ({ signal }) => everyPart((query) => unwrap(api.GET("/api/packs", { params: { query }, signal }))),
});

/** What happened and teaches: lights that were seen, takes, steps of trials. */
export const recordsQuery = queryOptions({
  queryKey: ["records"],
  queryFn: ({ signal }) => everyPart((query) => unwrap(api.GET("/api/records", { params: { query }, signal }))),
});

/** Questions of practice that were answered, oldest first. */
export const practiceAnswersQuery = queryOptions({
  queryKey: ["practice", "answers"],
  queryFn: ({ signal }) =>
    everyPart((query) => unwrap(api.GET("/api/practice-answers", { params: { query }, signal }))),
});

/** The mistakes of the log that practice trains, and the light that was guessed. */
export const practiceLogQuery = queryOptions({
  queryKey: ["practice", "log"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/practice", { signal })),
});

/** What the log teaches. */
export const learnedQuery = queryOptions({
  queryKey: ["records", "learned"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/learned", { signal })),
});

export const rigsQuery = queryOptions({
  // Beside the benches, as all that fit hangs on: what changes one changes the others.
  queryKey: ["bench", "rigs"],
  queryFn: ({ signal }) => everyPart((query) => unwrap(api.GET("/api/rigs", { params: { query }, signal }))),
});

export const fitsQuery = queryOptions({
  queryKey: ["bench", "fits"],
  queryFn: async ({ signal }) => (await unwrap(api.GET("/api/fits", { signal }))).items,
});

export const seatQuery = (rigId: string, filters: readonly string[]) =>
  queryOptions({
    queryKey: ["bench", "seat", rigId, filters],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/rigs/{id}/seat", { params: { path: { id: rigId }, query: { filters: [...filters] } }, signal }),
      ),
    placeholderData: keepPreviousData,
  });

export const setsQuery = (rigId: string) =>
  queryOptions({
    queryKey: ["bench", "sets", rigId],
    queryFn: async ({ signal }) =>
      (await unwrap(api.GET("/api/rigs/{id}/sets", { params: { path: { id: rigId } }, signal }))).items,
    enabled: rigId !== "",
  });

/** A shoot made ready for planning. */
export const dayQuery = (shootId: string) =>
  queryOptions({
    queryKey: ["day", shootId],
    queryFn: ({ signal }) => unwrap(api.GET("/api/shoots/{id}/day", { params: { path: { id: shootId } }, signal })),
  });

export const archetypesQuery = queryOptions({
  queryKey: ["archetypes"],
  queryFn: async ({ signal }) => (await unwrap(api.GET("/api/archetypes", { signal }))).items,
  staleTime: Number.POSITIVE_INFINITY,
});

/** The defaults and the usual choices of a shot. */
export const presetsQuery = queryOptions({
  queryKey: ["presets"],
  queryFn: ({ signal }) => unwrap(api.GET("/api/presets", { signal })),
});

/** What a computation is kept under: requests are made in one place each, so their fields stand in one order. */
export const hashOf = (key: readonly unknown[]): string => JSON.stringify(key);

/**
 * The computed answers. The request is the key, so an answer can never be shown
 * beside another request, and the one before stays until the new one is there.
 */
const asComputed = {
  queryKeyHashFn: hashOf,
  staleTime: Number.POSITIVE_INFINITY,
  gcTime: 60_000,
  retry: false,
  placeholderData: keepPreviousData,
};

type CalcPath = Extract<keyof paths, `/api/calc/${string}`>;
type CalcName = CalcPath extends `/api/calc/${infer Name}` ? Name : never;
type Json<T> = T extends { content: { "application/json": infer Body } } ? Body : never;
type Asked<Name extends CalcName> = Json<paths[`/api/calc/${Name}`]["post"]["requestBody"]>;
type Answered<Name extends CalcName> = Json<paths[`/api/calc/${Name}`]["post"]["responses"][200]>;

/** Asks for a computation, but not of nothing. A long request goes by a shorter key. */
const calc =
  <Name extends CalcName>(name: Name) =>
  (request: Asked<Name> | null, key: readonly unknown[] = [request]) =>
    queryOptions({
      queryKey: ["calc", name, ...key],
      queryFn: ({ signal }) => computed<Answered<Name>>(compute(name, request, signal)),
      enabled: request !== null,
      ...asComputed,
    });

export const shotAnswerQuery = calc("shot");
export const questionQuery = calc("question");
export const markQuery = calc("mark");
/** How practice goes, by how many questions were answered. */
export const progressQuery = (request: Schemas["PracticeProgressRequest"] | null) =>
  calc("progress")(request, [request && [request.answers.length, request.answers.at(-1)?.at, request.guesses?.length]]);
export const steppedQuery = calc("stepped");
export const askQuery = calc("ask");
export const ratesQuery = calc("rates");
export const sayQuery = calc("say");
export const polariserDayQuery = calc("polariser-day");
export const compareQuery = calc("compare");
export const cardAnswerQuery = calc("card");
export const remeterQuery = calc("remeter");
export const passageQuery = calc("passage");

/** What a drawing of a shot shows. */
export const loopQuery = calc("loop");

export const labelQuery = (label: string) => calc("label")(label.trim() === "" ? null : { label });

/**
 * The light and plan of a day. Its request is long, so the key is what it was made
 * from: the day as it was fetched, and what differs from that.
 */
export const outingQuery = (key: readonly unknown[], request: Schemas["OutingRequest"] | null) =>
  calc("outing")(request, key);

export const yearQuery = (shootId: string, camera: string) =>
  queryOptions({
    queryKey: ["day", shootId, "year", camera],
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/shoots/{id}/year", { params: { path: { id: shootId }, query: { camera } }, signal })),
  });

/** The drawing itself, frame by frame. */
export const loopPictureQuery = (request: Schemas["LoopRequest"] | null) =>
  queryOptions({
    queryKey: ["render", "loop", request],
    queryFn: request
      ? async ({ signal }) => {
          const blob = await unwrap(api.POST("/api/render/loop", { body: request, signal, parseAs: "blob" }));
          const parts = await new Response(blob).formData();
          return Promise.all(parts.getAll("frame").map((part) => createImageBitmap(part as File)));
        }
      : skipToken,
    ...asComputed,
    gcTime: 10_000, // pictures are large
  });

/** What the simulated camera shows in a light. */
export const simulatedCameraQuery = (request: Schemas["CameraRequest"]) =>
  queryOptions({
    queryKey: ["sim", "camera", request],
    queryFn: ({ signal }) => unwrap(api.POST("/api/sim/camera", { body: request, signal })),
    ...asComputed,
  });

/** The test frame that it takes. */
export const simulatedFrameQuery = (request: Schemas["CameraRequest"]) =>
  queryOptions({
    queryKey: ["sim", "frame", request],
    queryFn: async ({ signal }) =>
      createImageBitmap(await unwrap(api.POST("/api/sim/camera/frame", { body: request, signal, parseAs: "blob" }))),
    ...asComputed,
    gcTime: 10_000,
  });

/** The card of a shoot by its plan, or of one shot of it that is shot now. */
export const cardQuery = (shootId: string, shot?: string) =>
  queryOptions({
    queryKey: shot ? ["card", shootId, shot] : ["card", shootId],
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/shoots/{id}/card", { params: { path: { id: shootId }, query: { shot } }, signal })),
    enabled: shootId !== "",
  });

/** What was done on a shoot before an entry of its log, the latest first. */
export const earlierLogQuery = (shootId: string, after: string) =>
  infiniteQueryOptions({
    queryKey: ["shoots", shootId, "log", after],
    queryFn: ({ signal, pageParam }) =>
      unwrap(
        api.GET("/api/shoots/{id}/log", { params: { path: { id: shootId }, query: { after: pageParam } }, signal }),
      ),
    initialPageParam: after,
    getNextPageParam: (last) => last.next,
  });
