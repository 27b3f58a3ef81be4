import { ApiProblem, type Schemas, stateOf } from "../../api/client";
import { putChange } from "./api";
import { markOf } from "./cells";
import type { Change, Current, Delivery } from "./outbox";

/** Sends one person's change and says what came of it. */
export async function deliver(accountId: string, sheetId: string, change: Change): Promise<Delivery> {
  try {
    const { revision, now } = await putChange(accountId, sheetId, change);
    return { result: "saved", revision, ...(now === undefined ? {} : { now: current(change, now) }) };
  } catch (error) {
    return outcome(change, error);
  }
}

function outcome(change: Change, error: unknown): Delivery {
  if (!(error instanceof ApiProblem)) {
    return { result: "unreachable" };
  }
  if (error.status >= 500 || error.status === 429) {
    return { result: "unreachable", trouble: error.message };
  }
  if (error.status === 401) {
    return { result: "signed-out" };
  }
  if (error.type === "other-account") {
    return { result: "other-account" };
  }
  return error.type === "changed-elsewhere" && error.current !== undefined
    ? { result: "conflict", current: current(change, error.current) }
    : { result: "refused", message: error.message };
}

/** What stands there now, as the server tells it. */
function current(change: Change, told: unknown): Current {
  const { answerId } = change;
  switch (change.kind) {
    case "grade": {
      const now = stateOf<Schemas["GradeOnSheet"]>(told);
      const { criterionId } = change;
      return { value: { kind: "grade", answerId, criterionId, mark: markOf(now) }, revision: now.revision };
    }
    case "reason": {
      const now = stateOf<{ text: string; revision: number }>(told);
      return { value: { kind: "reason", answerId, text: now.text }, revision: now.revision };
    }
    case "works": {
      const { revision, why, ...now } = stateOf<Schemas["WorksOnSheet"]>(told);
      return { value: { kind: "works", answerId, ...now, ...(why && { why }) }, revision };
    }
    case "preference": {
      const { revision, ...now } = stateOf<Schemas["PreferenceOnSheet"]>(told);
      return { value: { kind: "preference", answerId, ...now }, revision };
    }
    case "coverage": {
      const { revision, ...now } = stateOf<Schemas["CoverageOnSheet"]>(told);
      return { value: { kind: "coverage", answerId, ...now }, revision };
    }
    case "remark": {
      const { revision, id, ...now } = stateOf<Schemas["RemarkOnSheet"]>(told);
      return { value: { kind: "remark", answerId, remarkId: id, ...now }, revision };
    }
    case "guess": {
      const { revision, ...now } = stateOf<Schemas["GuessOnSheet"]>(told);
      return { value: { kind: "guess", answerId, ...now }, revision };
    }
  }
}
