import type { Answered, Asked } from "./calc.worker";

let worker: Worker | undefined;
let asked = 0;
const waiting = new Map<number, (answer: Answered) => void>();

/** Ends a worker that cannot go on, and everything that waits for it; the next question starts anew. */
function giveUp(text: string): void {
  worker?.terminate();
  worker = undefined;
  for (const [id, resolve] of waiting) resolve({ id, status: 0, text });
  waiting.clear();
}

function start(): Worker {
  const started = new Worker(new URL("./calc.worker.ts", import.meta.url), { type: "module" });
  started.onmessage = ({ data }: MessageEvent<Answered>) => {
    if (data.status === 0) return giveUp(data.text);
    waiting.get(data.id)?.(data);
    waiting.delete(data.id);
  };
  started.onerror = () => giveUp("the computation could not be started");
  return started;
}

/**
 * Answers a computation in the page, by the server's own core. Its program, of more
 * than a megabyte, is loaded with the first question.
 */
export async function answerHere(name: string, body: string): Promise<Response> {
  worker ??= start();
  asked += 1;
  const question = { id: asked, name, body } satisfies Asked;
  const answer = await new Promise<Answered>((resolve) => {
    waiting.set(question.id, resolve);
    worker?.postMessage(question);
  });
  if (answer.status === 0) throw new TypeError(answer.text);
  const media = answer.status === 200 ? "application/json" : "application/problem+json";
  return new Response(answer.text, { status: answer.status, headers: { "Content-Type": media } });
}
