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

export const isGoing = (run: RunView) => run.state === "RUNNING" || run.cells.some((c) => c.state === "ASKING");
