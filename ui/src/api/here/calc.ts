import type { Answered, Asked } from "./calc.worker";

let worker: Worker | undefined;
let asked = 0;
const waiting = new Map<number, (answer: Answered) => void>();

/**
 * Answers a computation in the page, by the server's own core. Its program, of more
 * than a megabyte, is loaded with the first question.
 */
export async function answerHere(name: string, body: string): Promise<Response> {
  if (!worker) {
    worker = new Worker(new URL("./calc.worker.ts", import.meta.url), { type: "module" });
    worker.onmessage = ({ data }: MessageEvent<Answered>) => {
      waiting.get(data.id)?.(data);
      waiting.delete(data.id);
    };
  }
  asked += 1;
  const question: Asked = { id: asked, name, body };
  const answer = await new Promise<Answered>((resolve) => {
    waiting.set(question.id, resolve);
    worker?.postMessage(question);
  });
  if (answer.status === 0) {
    worker.terminate(); // it could not start; the next question tries anew
    worker = undefined;
    throw new TypeError(answer.text);
  }
  const media = answer.status === 200 ? "application/json" : "application/problem+json";
  return new Response(answer.text, { status: answer.status, headers: { "Content-Type": media } });
}
