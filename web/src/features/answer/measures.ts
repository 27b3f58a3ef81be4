import type { Schemas } from "../../api/client";
import { chance, duration, fixed, money } from "../../ui/format";

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

/** All that is known of what an answer took, for reading it alone: with its rate, and how full it made the context. */
export function measuresInFull(measures: Schemas["Measures"], contextWindow: number | undefined): string {
  const { firstOutputMs, totalMs, inputTokens, outputTokens, cost, currency } = measures;
  const tokens = (inputTokens ?? 0) + (outputTokens ?? 0);
  const parts = [
    firstOutputMs !== undefined && `first output after ${duration(firstOutputMs)}`,
    totalMs !== undefined && `${duration(totalMs)} in all`,
    inputTokens !== undefined && `${inputTokens} tokens in`,
    outputTokens !== undefined && `${outputTokens} tokens out`,
    outputTokens !== undefined && !!totalMs && `${fixed((outputTokens * 1000) / totalMs, 0)} tokens out a second`,
    contextWindow !== undefined && tokens > 0 && `${chance(tokens / contextWindow)} of the context window`,
    cost !== undefined && currency !== undefined && money(cost, currency),
  ].filter((p) => p !== false);
  return parts.length > 0 ? parts.join(" · ") : "not measured";
}
