import { expose } from "comlink";
import core from "./go/core.wasm?url";
import "./go/wasm_exec.js";

/** Go is the runtime that comes with Go's compiler (wasm_exec.js). */
declare class Go {
  importObject: WebAssembly.Imports;
  run(instance: WebAssembly.Instance): Promise<void>;
}

/** lanternCore is what cmd/core gives the page: it answers a question (contract.CoreQuestion), both as JSON. */
declare function lanternCore(question: string): string;

async function start(): Promise<void> {
  const go = new Go();
  const { instance } = await WebAssembly.instantiateStreaming(fetch(core), go.importObject);
  void go.run(instance); // it runs as long as the worker does; lanternCore is there when this returns
}

const started = start();

const answers = {
  answer: async (question: string): Promise<string> => {
    await started;
    return lanternCore(question);
  },
};

export type CoreAnswers = typeof answers;

expose(answers);
