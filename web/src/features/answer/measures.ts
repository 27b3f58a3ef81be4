import type { Schemas } from "../../api/client";
import { chance, count, duration, fixed, money } from "../../ui/format";

const about = (measures: Schemas["Measures"]) => (measures.estimated ? "about " : "");

/** How much of the starting code an answer changes; undefined if nothing. */
export function changeLine(changed: Schemas["ChangeSize"]): string | undefined {
  return changed.files === 0
    ? undefined
    : `${changed.complete ? "" : "at least "}${count(changed.files, "file", "files")}, ${changed.linesAdded} lines added, ${changed.linesRemoved} removed`;
}

/** How many follow-ups an answer got. */
export function followUpLine(followUps: number, unequal: number): string | undefined {
  if (followUps === 0) {
    return undefined;
  }
  const own = unequal === 0 ? "" : unequal === followUps ? ", its own" : `, ${unequal} of its own`;
  return `${count(followUps, "follow-up", "follow-ups")}${own}`;
}

/** What an answer took, in one line; what nobody measured is left out. */
export function measuresLine(measures: Schemas["Measures"]): string {
  const parts = [
    measures.totalMs !== undefined && duration(measures.totalMs),
    measures.outputTokens !== undefined && `${about(measures)}${measures.outputTokens} tokens out`,
    measures.cost !== undefined &&
      measures.currency !== undefined &&
      `${about(measures)}${money(measures.cost, measures.currency)}`,
  ].filter((p) => p !== false);
  return parts.length > 0 ? parts.join(" · ") : "not measured";
}

/** All that is known of what an answer took, for reading it alone: with its rate, and how full it made the context. */
export function measuresInFull(measures: Schemas["Measures"], contextWindow: number | undefined): string {
  const { firstOutputMs, totalMs, inputTokens, outputTokens, cost, currency, tries, model } = measures;
  const tokens = (inputTokens ?? 0) + (outputTokens ?? 0);
  const parts = [
    firstOutputMs !== undefined && `first output after ${duration(firstOutputMs)}`,
    totalMs !== undefined && `${duration(totalMs)} in all`,
    inputTokens !== undefined && `${about(measures)}${inputTokens} tokens in`,
    outputTokens !== undefined && `${about(measures)}${outputTokens} tokens out`,
    outputTokens !== undefined && !!totalMs && `${fixed((outputTokens * 1000) / totalMs, 0)} tokens out a second`,
    contextWindow !== undefined && tokens > 0 && `${chance(tokens / contextWindow)} of the context window`,
    cost !== undefined && currency !== undefined && `${about(measures)}${money(cost, currency)}`,
    measures.estimated && "tokens and cost are estimates, as none were counted",
    tries !== undefined && tries > 1 && `came at try ${tries}`,
    model !== undefined && `${model} answered, by its service’s word`,
  ].filter((p) => p !== false);
  return parts.length > 0 ? parts.join(" · ") : "not measured";
}

/** The candidates for whom more than one model answered, as their services said. */
export function ofSeveralModels(answers: Schemas["AnswerSummary"][]): Set<string> {
  const models = Map.groupBy(
    answers.filter((a) => a.measures.model !== undefined),
    (a) => a.candidateId,
  );
  return new Set(
    [...models].filter(([, own]) => new Set(own.map((a) => a.measures.model)).size > 1).map(([candidate]) => candidate),
  );
}
