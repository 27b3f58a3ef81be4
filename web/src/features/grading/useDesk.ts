import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import { ApiProblem, currentOf, type Schemas } from "../../api/client";
import { oneSheet, putGrade, putReason, sheetKeys } from "./api";
import { cellOf, type Change, type Delivery, type Mark, Outbox, type OutboxState } from "./outbox";

type Sheet = Schemas["SheetView"];

/** How long to wait for more typing before a reason is sent, in milliseconds. */
const TYPING_PAUSE = 700;

async function deliver(sheetId: string, change: Change): Promise<Delivery> {
  const { changeId, baseRevision } = change;
  try {
    const saved =
      change.kind === "grade"
        ? await putGrade(sheetId, change.answerId, change.criterionId, { changeId, baseRevision, ...change.mark })
        : await putReason(sheetId, change.answerId, { changeId, baseRevision, text: change.text });
    return { result: "saved", revision: saved.revision };
  } catch (error) {
    return outcome(change, error);
  }
}

function outcome(change: Change, error: unknown): Delivery {
  if (!(error instanceof ApiProblem) || error.status >= 500 || error.status === 429) {
    return { result: "unreachable" };
  }
  if (error.status === 401) {
    return { result: "signed-out" };
  }
  if (error.type === "changed-elsewhere") {
    if (change.kind === "reason") {
      return { result: "conflict", current: currentOf<Schemas["ReasonOnSheet"]>(error) };
    }
    const grade = currentOf<Schemas["GradeOnSheet"]>(error);
    return { result: "conflict", current: { mark: markOf(grade), revision: grade.revision } };
  }
  return { result: "refused", message: error.message };
}

export function markOf(grade: Schemas["GradeOnSheet"]): Mark {
  return grade.level === undefined
    ? { notApplicable: grade.notApplicable }
    : { level: grade.level, notApplicable: false };
}

/** The sheet with a change in it, as the server will show it from now on. */
function withSaved(sheet: Sheet, change: Change, revision: number): Sheet {
  const answers = sheet.answers.map((answer) => {
    if (answer.id !== change.answerId) {
      return answer;
    }
    if (change.kind === "reason") {
      return { ...answer, reason: change.text, reasonRevision: revision };
    }
    const grades = answer.grades.map((g) =>
      g.criterionId === change.criterionId ? { criterionId: g.criterionId, revision, ...change.mark } : g,
    );
    return { ...answer, grades };
  });
  return { ...sheet, answers };
}

const OUTBOX = "mossbank.outbox";

/** This window's own name, kept over reloads, so that two windows on one sheet do not write over each other's changes. */
function windowName(): string {
  const known = sessionStorage.getItem(OUTBOX);
  const name = known ?? crypto.randomUUID();
  sessionStorage.setItem(OUTBOX, name);
  return name;
}

function outboxKeys(accountId: string, sheetId: string): { key: string; adopt: string[] } {
  const prefix = `${OUTBOX}.${accountId}.${sheetId}.`;
  return { key: prefix + windowName(), adopt: Object.keys(localStorage).filter((key) => key.startsWith(prefix)) };
}

export type Desk = {
  outbox: OutboxState;
  markAt: (answerId: string, criterionId: string) => Mark;
  reasonAt: (answerId: string) => string;
  setMark: (answerId: string, criterionId: string, mark: Mark) => void;
  setReason: (answerId: string, text: string) => void;
  settle: (cell: string, keep: "mine" | "theirs") => void;
  /** Sends all that waits now; false if something still does afterwards. */
  settleAll: () => Promise<boolean>;
};

/** What the rater sees and does on one sheet: the server's grades with what is still on its way on top. */
export function useDesk(sheet: Sheet, accountId: string): Desk {
  const client = useQueryClient();
  const outbox = useMemo(
    () =>
      new Outbox({
        store: localStorage,
        ...outboxKeys(accountId, sheet.id),
        deliver: (change) => deliver(sheet.id, change),
        onSaved: (change, revision) =>
          client.setQueryData(oneSheet(sheet.id).queryKey, (old) => old && withSaved(old, change, revision)),
        newId: () => crypto.randomUUID(),
      }),
    [client, accountId, sheet.id],
  );
  const state = useSyncExternalStore(outbox.subscribe, outbox.state);

  useEffect(() => {
    const again = () => void outbox.flush();
    again();
    window.addEventListener("online", again);
    return () => {
      window.removeEventListener("online", again);
      void outbox.flush();
    };
  }, [outbox]);

  const answer = (answerId: string) => sheet.answers.find((a) => a.id === answerId);
  const grade = (answerId: string, criterionId: string) =>
    answer(answerId)?.grades.find((g) => g.criterionId === criterionId);

  return {
    outbox: state,
    markAt: (answerId, criterionId) => {
      const waiting = state.pending.get(cellOf({ kind: "grade", answerId, criterionId }));
      const saved = grade(answerId, criterionId);
      return waiting?.kind === "grade" ? waiting.mark : saved ? markOf(saved) : { notApplicable: false };
    },
    reasonAt: (answerId) => {
      const waiting = state.pending.get(cellOf({ kind: "reason", answerId }));
      return waiting?.kind === "reason" ? waiting.text : (answer(answerId)?.reason ?? "");
    },
    setMark: (answerId, criterionId, mark) =>
      outbox.put({
        kind: "grade",
        changeId: crypto.randomUUID(),
        baseRevision: grade(answerId, criterionId)?.revision ?? 0,
        answerId,
        criterionId,
        mark,
      }),
    setReason: (answerId, text) =>
      outbox.put(
        {
          kind: "reason",
          changeId: crypto.randomUUID(),
          baseRevision: answer(answerId)?.reasonRevision ?? 0,
          answerId,
          text,
        },
        TYPING_PAUSE,
      ),
    settle: (cell, keep) => {
      outbox.settle(cell, keep);
      if (keep === "theirs") {
        void client.invalidateQueries({ queryKey: sheetKeys.one(sheet.id) });
      }
    },
    settleAll: async () => {
      await outbox.flush();
      return outbox.state().pending.size === 0 && outbox.state().conflicts.size === 0;
    },
  };
}
