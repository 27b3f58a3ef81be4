import { cellOf, type CellValue } from "./cells";

/** One step that can be undone: what stood in a cell, and what was put there. */
export type Step = { before: CellValue; after: CellValue; at: number };

export type Steps = { done: Step[]; undone: Step[] };

/** Typing into one cell within this time is one step, in milliseconds. */
const ONE_BREATH = 1_500;

/** Older steps are forgotten. */
const MOST = 200;

export const NO_STEPS: Steps = { done: [], undone: [] };

export function did(steps: Steps, step: Step): Steps {
  const last = steps.done.at(-1);
  const isTyping = step.after.kind === "reason" || step.after.kind === "remark";
  if (last && isTyping && cellOf(last.after) === cellOf(step.after) && step.at - last.at < ONE_BREATH) {
    return { done: [...steps.done.slice(0, -1), { ...last, after: step.after, at: step.at }], undone: [] };
  }
  return { done: [...steps.done, step].slice(-MOST), undone: [] };
}

/** The steps after an undo, and what to put back; nothing if there is nothing to undo. */
export function undo(steps: Steps): { steps: Steps; value: CellValue } | undefined {
  const last = steps.done.at(-1);
  return last && { steps: { done: steps.done.slice(0, -1), undone: [...steps.undone, last] }, value: last.before };
}

export function redo(steps: Steps): { steps: Steps; value: CellValue } | undefined {
  const next = steps.undone.at(-1);
  return next && { steps: { done: [...steps.done, next], undone: steps.undone.slice(0, -1) }, value: next.after };
}
