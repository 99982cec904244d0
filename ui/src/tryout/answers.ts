import { tag } from "../language/catalogue";
import runtime from "../apart/go/wasm_exec.js?raw";
import packed from "./go/tryout.wasm.gz?url";

// The page to try the application with answers its own questions: the part of the application that leads a class and rehearses
// runs in a worker of the page. All of it is inside the page, so that it opens as a file too.

type Question = { method: string; path: string; body?: unknown; language: string; now_ms: number };
type Told = { id: number; answer: string };

/** loop is what the worker runs after Go's runtime. cmd/tryout gives it lanternTryout. */
const loop = `
onmessage = async ({ data: { id, code, question } }) => {
  if (code) {
    const go = new Go();
    const { instance } = await WebAssembly.instantiate(code, go.importObject);
    go.run(instance);
  }
  postMessage({ id, answer: code ? "" : lanternTryout(question) });
};`;

const load = window.fetch.bind(window);

/** start starts the worker, and returns how it is asked. */
async function start(): Promise<(question: string) => Promise<string>> {
  const worker = new Worker(URL.createObjectURL(new Blob([runtime, loop], { type: "text/javascript" })));
  const waiting = new Map<number, (answer: string) => void>();
  let asked = 0;
  const lost = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message));
  });
  lost.catch(() => undefined); // whoever asks is told
  worker.onmessage = ({ data: { id, answer } }: MessageEvent<Told>) => {
    waiting.get(id)?.(answer);
    waiting.delete(id);
  };
  const ask = (message: { code?: ArrayBuffer; question?: string }) =>
    Promise.race([
      lost,
      new Promise<string>((answered) => {
        const id = ++asked;
        waiting.set(id, answered);
        worker.postMessage({ id, ...message });
      }),
    ]);
  const file = await load(packed);
  const unpacked = file.body!.pipeThrough(new DecompressionStream("gzip"));
  await ask({ code: await new Response(unpacked).arrayBuffer() });
  return (question) => ask({ question });
}

const started = start();
started.catch(() => undefined); // the first question fails

/** answerHere has the page answer what its views ask of the application. */
export function answerHere(): void {
  window.fetch = async (input, init) => {
    const path = typeof input === "string" ? input : "";
    if (!path.startsWith("/api/")) return load(input, init);
    const question: Question = {
      method: init?.method ?? "GET",
      path: path.slice("/api".length),
      body: typeof init?.body === "string" ? (JSON.parse(init.body) as unknown) : undefined,
      language: tag(),
      now_ms: Date.now(),
    };
    const ask = await started;
    const { status, body } = JSON.parse(await ask(JSON.stringify(question))) as {
      status: number;
      body: unknown;
    };
    return new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
  };
}
