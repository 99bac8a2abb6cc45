import type { components } from "./schema.gen";

/** What goes over the wire, by name. */
export type Schemas = components["schemas"];
