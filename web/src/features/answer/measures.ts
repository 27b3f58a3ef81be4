import type { Schemas } from "../../api/client";
import { duration, money } from "../../ui/format";

export const OUTCOMES: Record<Schemas["AnswerView"]["outcome"], string> = {
  COMPLETE: "complete",
  INCOMPLETE: "incomplete",
  REFUSED: "refused",
  FAILED: "failed",
  TIMED_OUT: "timed out",
};

export function outcomeWord(outcome: Schemas["AnswerView"]["outcome"]): string {
  return OUTCOMES[outcome];
}

/** What an answer took, in one line; what nobody measured is left out. */
export function measuresLine(measures: Schemas["Measures"]): string {
  const parts = [
    measures.totalMs !== undefined && duration(measures.totalMs),
    measures.outputTokens !== undefined && `${measures.outputTokens} tokens out`,
    measures.cost !== undefined && measures.currency !== undefined && money(measures.cost, measures.currency),
  ].filter((p) => p !== false);
  return parts.length > 0 ? parts.join(" · ") : "not measured";
}
