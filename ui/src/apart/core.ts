import { type Remote, wrap } from "comlink";
import { Failed } from "../wire/api";
import type { CoreQuestion, Fact } from "../wire/contract";
import { opened } from "../wire/score";
import type { CoreAnswers } from "./core.worker";

type Answer = { result: unknown; wrong: Fact | null };

/** Core is the rules of the job on this device, for one class. */
export type Core = {
  ask: <Result>(question: CoreQuestion) => Promise<Result>;
  end: () => void;
};

/** startCore loads the core into a worker of its own. A question fails where the core cannot be loaded. */
export function startCore(): Core {
  const worker = new Worker(new URL("./core.worker.ts", import.meta.url), { type: "module", name: "core" });
  const remote: Remote<CoreAnswers> = wrap<CoreAnswers>(worker);
  const lost = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Failed({ say: { id: "apart.no-core" } }, 0));
  });
  lost.catch(() => undefined); // whoever asks is told
  return {
    ask: async <Result>(question: CoreQuestion) => {
      const text = await Promise.race([remote.answer(JSON.stringify(question)), lost]);
      const { result, wrong } = JSON.parse(text) as Answer;
      if (wrong) throw new Failed({ say: wrong }, 400);
      return opened(result as Result);
    },
    end: () => worker.terminate(),
  };
}
