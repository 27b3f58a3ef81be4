import type { Schemas } from "../../api/client";
import { count } from "../../ui/format";

export type RunView = Schemas["RunView"];
export type RunCell = Schemas["CellView"];

/** How far a run is, in words. */
export function runLine(run: RunView): string {
  const done = run.cells.filter((c) => c.state === "DONE").length;
  const away = run.cells.filter((c) => c.state === "TURNED_AWAY").length;
  const parts = [
    `${done} of ${count(run.cells.length, "answer", "answers")}`,
    away > 0 && `${away} turned away`,
    run.stopping ? "stopping" : { RUNNING: "collecting", PAUSED: "paused", FINISHED: "finished" }[run.state],
  ];
  return parts.filter((p) => p !== false).join(", ");
}

/** What a run says of a cell for which no answer is there; the latest run's word counts. */
export function whyNotThere(runs: RunView[], promptId: string, candidateId: string): string | undefined {
  const cell = runs
    .toReversed()
    .flatMap((run) => run.cells.map((c) => ({ ...c, run: run.state })))
    .find((c) => c.promptId === promptId && c.candidateId === candidateId);
  switch (cell?.state) {
    case "WAITING":
      return cell.run === "RUNNING" ? "waiting in a run" : "waiting in a run that is paused";
    case "ASKING":
      return "being asked";
    case "TURNED_AWAY":
      return `turned away: ${cell.notes?.split("\n").at(-1) ?? "nothing came"}`;
    case "DONE":
      return "removed after a run";
    case undefined:
      return undefined;
  }
}

export const isGoing = (run: RunView) => run.state === "RUNNING" || run.cells.some((c) => c.state === "ASKING");

/** How an answer ended. */
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
