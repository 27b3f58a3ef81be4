import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import type { Schemas } from "../../api/client";
import { oneSheet, sheetKeys } from "./api";
import {
  cellOf,
  type CellValue,
  type Mark,
  type RemarkContent,
  savedIn,
  sheetWith,
  type Verdict,
  type Works,
} from "./cells";
import { deliver } from "./deliver";
import { outboxKeys } from "./kept";
import { Outbox, type OutboxState } from "./outbox";
import type { PlacedRemark } from "./remarks";
import { did, NO_STEPS, redo, type Steps, undo } from "./undo";

type Sheet = Schemas["SheetView"];

/** How long to wait for more typing before words are sent, in milliseconds. */
const TYPING_PAUSE = 700;

export type Desk = {
  outbox: OutboxState;
  markAt: (answerId: string, criterionId: string) => Mark;
  reasonAt: (answerId: string) => string;
  worksAt: (answerId: string) => Works | undefined;
  /** Why it is otherwise than a trial found; empty if that is not said. */
  worksWhyAt: (answerId: string) => string;
  preferenceAt: (answerId: string) => number | undefined;
  verdictAt: (answerId: string, point: number) => Verdict | undefined;
  guessAt: (answerId: string) => { choice?: number; noIdea: boolean };
  /** Those that stand, waiting ones included. */
  remarksOf: (answerId: string) => PlacedRemark[];
  set: (value: CellValue) => void;
  /** Puts back what stood before the last change, or does it again; says what cell that was. */
  undo: () => CellValue | undefined;
  redo: () => CellValue | undefined;
  settle: (cell: string, keep: "mine" | "theirs") => void;
  answerRefusal: (cell: string, how: "again" | "let-go") => void;
  noted: (cell: string) => void;
  /** Sends all that waits now; false if something still does afterwards. */
  settleAll: () => Promise<boolean>;
};

/** What the rater sees and does on one sheet: the server's values with what is still on its way on top. */
export function useDesk(sheet: Sheet, accountId: string): Desk {
  const client = useQueryClient();
  const { outbox, state } = useOutbox(sheet.id, accountId);
  const steps = useRef<Steps>(NO_STEPS);

  const saved = (like: CellValue) => {
    const answer = sheet.answers.find((a) => a.id === like.answerId);
    const onSheet = answer ? savedIn(answer, like) : { value: like, revision: 0 };
    const own = state.saved.get(cellOf(like));
    return own && own.revision > onSheet.revision ? own : onSheet;
  };
  const valueNow = (like: CellValue): CellValue => state.pending.get(cellOf(like)) ?? saved(like).value;

  const put = (value: CellValue) =>
    outbox.put(
      { ...value, changeId: crypto.randomUUID(), baseRevision: saved(value).revision },
      value.kind === "reason" || (value.kind === "works" && value.why) ? TYPING_PAUSE : 0,
    );
  const step = (taken: ReturnType<typeof undo>) => {
    if (taken) {
      steps.current = taken.steps;
      put(taken.value);
    }
    return taken?.value;
  };

  return {
    outbox: state,
    ...whatStands(valueNow),
    remarksOf: (answerId) => {
      const onSheet = sheet.answers.find((a) => a.id === answerId)?.remarks ?? [];
      const all = new Map<string, RemarkContent | undefined>(onSheet.map((r) => [r.id, r.remark]));
      const given = [...state.saved.values()].map((s) => s.value).filter((v) => v.kind === "remark");
      const waiting = [...state.pending.values()].filter((v) => v.kind === "remark");
      for (const value of [...given.map((v) => saved(v).value), ...waiting]) {
        if (value.kind === "remark" && value.answerId === answerId) {
          all.set(value.remarkId, value.remark);
        }
      }
      return [...all].flatMap(([id, remark]) => (remark ? [{ id, remark }] : []));
    },
    set: (value) => {
      steps.current = did(steps.current, { before: withoutChange(valueNow(value)), after: value, at: Date.now() });
      put(value);
    },
    undo: () => step(undo(steps.current)),
    redo: () => step(redo(steps.current)),
    answerRefusal: (cell, how) => outbox.answerRefusal(cell, how),
    noted: (cell) => outbox.noted(cell),
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

/** The changes of one sheet that wait in this window, sent as soon as they can be. */
function useOutbox(sheetId: string, accountId: string): { outbox: Outbox; state: OutboxState } {
  const client = useQueryClient();
  const outbox = useMemo(
    () =>
      new Outbox({
        store: localStorage,
        ...outboxKeys(accountId, sheetId),
        deliver: (change) => deliver(accountId, sheetId, change),
        onSaved: (value, revision) =>
          client.setQueryData(oneSheet(sheetId).queryKey, (old) => old && sheetWith(old, value, revision)),
        newId: () => crypto.randomUUID(),
      }),
    [client, accountId, sheetId],
  );
  useEffect(() => {
    const again = () => void outbox.flush();
    outbox.resume();
    again();
    window.addEventListener("online", again);
    return () => {
      window.removeEventListener("online", again);
      void outbox.flush();
      outbox.retire();
    };
  }, [outbox]);
  return { outbox, state: useSyncExternalStore(outbox.subscribe, outbox.state) };
}

type Standing = Pick<Desk, "markAt" | "reasonAt" | "worksAt" | "worksWhyAt" | "preferenceAt" | "verdictAt" | "guessAt">;

/** What stands in each kind of cell. */
function whatStands(valueNow: (like: CellValue) => CellValue): Standing {
  return {
    markAt: (answerId, criterionId) => {
      const now = valueNow({ kind: "grade", answerId, criterionId, mark: { notApplicable: false } });
      return now.kind === "grade" ? now.mark : { notApplicable: false };
    },
    reasonAt: (answerId) => {
      const now = valueNow({ kind: "reason", answerId, text: "" });
      return now.kind === "reason" ? now.text : "";
    },
    worksAt: (answerId) => {
      const now = valueNow({ kind: "works", answerId });
      return now.kind === "works" ? now.works : undefined;
    },
    worksWhyAt: (answerId) => {
      const now = valueNow({ kind: "works", answerId });
      return now.kind === "works" ? (now.why ?? "") : "";
    },
    preferenceAt: (answerId) => {
      const now = valueNow({ kind: "preference", answerId });
      return now.kind === "preference" ? now.place : undefined;
    },
    verdictAt: (answerId, point) => {
      const now = valueNow({ kind: "coverage", answerId, point });
      return now.kind === "coverage" ? now.verdict : undefined;
    },
    guessAt: (answerId) => {
      const now = valueNow({ kind: "guess", answerId, noIdea: false });
      return now.kind === "guess" ? now : { noIdea: false };
    },
  };
}

/** A value without the id and revision of the change that it waits in. */
function withoutChange(value: CellValue & { changeId?: string; baseRevision?: number; tried?: boolean }): CellValue {
  const { changeId, baseRevision, tried, ...alone } = value;
  return alone;
}
