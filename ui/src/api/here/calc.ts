import type { Answered, Asked } from "./calc.worker";

let worker: Worker | undefined;
let isReady = false;
let asked = 0;
const waiting = new Map<number, (answer: Answered) => void>();

/** Ends a worker that cannot go on, and everything that waits for it; the next question starts anew. */
function giveUp(text: string): void {
  worker?.terminate();
  worker = undefined;
  isReady = false;
  for (const [id, resolve] of waiting) resolve({ id, status: 0, text });
  waiting.clear();
}

function start(): Worker {
  const started = new Worker(new URL("./calc.worker.ts", import.meta.url), { type: "module" });
  started.onmessage = ({ data }: MessageEvent<Answered>) => {
    if (data.status === 0) return giveUp(data.text);
    isReady = true;
    waiting.get(data.id)?.(data);
    waiting.delete(data.id);
  };
  started.onerror = () => giveUp("the computation could not be started");
  return started;
}

/** Whether the page has answered before: then it does so at once. */
export const isWarm = (): boolean => isReady;

/**
 * Answers a computation in the page, by the server's own core: with the status and the text that
 * the server would answer with. Its program, of more than a megabyte, is loaded with the first question.
 */
export async function answerHere(name: string, body: string): Promise<{ status: number; text: string }> {
  worker ??= start();
  asked += 1;
  const question = { id: asked, name, body } satisfies Asked;
  const answer = await new Promise<Answered>((resolve) => {
    waiting.set(question.id, resolve);
    worker?.postMessage(question);
  });
  if (answer.status === 0) throw new TypeError(answer.text);
  return answer;
}
