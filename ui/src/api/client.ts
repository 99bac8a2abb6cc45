import createClient from "openapi-fetch";
import * as z from "zod/mini";
import { localised } from "../lib/prose";
import { ask } from "./ask";
import type { paths } from "./schema.gen";
import { isThing } from "./undo";

const client = createClient<paths>({ baseUrl: "/", fetch: ask });

const fault = z.object({ field: z.string(), value: z.unknown(), allowed: z.string() });
const document = z.object({
  title: z.string(),
  status: z.number(),
  detail: z.string(),
  errors: z.optional(z.array(fault)),
  current: z.optional(z.unknown()),
});

export type Fault = z.infer<typeof fault>;

/** A problem document that the server answered with. */
export class Problem extends Error {
  readonly status: number;
  readonly faults: Fault[];
  /** In a conflict, what is stored. */
  readonly current: unknown;

  constructor(body: z.infer<typeof document>) {
    super(body.detail);
    this.name = "Problem";
    this.status = body.status;
    this.faults = body.errors ?? [];
    this.current = body.current;
  }
}

/** The server did not answer at all. */
export class Unreachable extends Error {
  constructor() {
    super("The server does not answer.");
    this.name = "Unreachable";
  }
}

/** Returns the data of an answer, or throws a Problem or Unreachable. */
export async function unwrap<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let answer: { data?: T; error?: unknown; response: Response };
  try {
    answer = await call;
  } catch (cause) {
    throw isAborted(cause) ? cause : new Unreachable();
  }
  if (answer.data !== undefined && answer.error === undefined) {
    // What is stored comes as it is stored: it goes back so.
    return isThing(new URL(answer.response.url || "/", window.location.href)) ? answer.data : localised(answer.data);
  }
  throw refused(answer.error);
}

/** The answer of a computation; throws as unwrap does. */
export async function computed<T>(answer: Promise<{ status: number; text: string }>): Promise<T> {
  let status: number;
  let said: unknown;
  try {
    const { text, ...answered } = await answer;
    status = answered.status;
    said = JSON.parse(text);
  } catch (cause) {
    throw isAborted(cause) ? cause : new Unreachable();
  }
  if (status === 200) return localised(said as T);
  throw refused(said);
}

const isAborted = (cause: unknown): boolean => cause instanceof DOMException && cause.name === "AbortError";

function refused(error: unknown): Error {
  const body = document.safeParse(localised(error));
  return body.success ? new Problem(body.data) : new Unreachable();
}

export const api = client;
