import { useCallback, useRef, useState } from "react";
import { post } from "../wire/api";
import type { Change, Drafted, PlanSummary } from "../wire/contract";
import type { Version } from "./version";
import { failureText } from "../language/text";

/** useDrafting has the application compute the numbers of a plan that is written, and make changes in it. */
export function useDrafting(first: PlanSummary) {
  const [summary, setSummary] = useState(first);
  const [failed, setFailed] = useState(""); // why the numbers do not follow
  const newest = useRef(0);

  /**
   * ask asks for the numbers of a version, after a change if there is one. Only the newest question's answer counts: of one
   * that was overtaken it returns nothing, of one that failed it throws why.
   */
  const ask = useCallback(async ({ document, group }: Version, change: Change | null) => {
    const question = ++newest.current;
    try {
      const answer = await post<Drafted>("/draft", { document, group_id: group, change });
      if (question !== newest.current) return null;
      setFailed("");
      setSummary(answer.summary);
      return answer;
    } catch (error) {
      if (question !== newest.current) return null;
      setFailed(failureText(error));
      throw error;
    }
  }, []);

  /** follow has the numbers follow; where that fails, the screen says so and those of before stay. */
  const follow = useCallback((version: Version) => void ask(version, null).catch(() => undefined), [ask]);

  return { summary, failed, ask, follow };
}
