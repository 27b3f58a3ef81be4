import { ApiProblem, currentOf, type Schemas } from "../../api/client";
import { putChange } from "./api";
import { markOf } from "./cells";
import type { Change, Current, Delivery } from "./outbox";

/** Sends a change and says what came of it. */
export async function deliver(sheetId: string, change: Change): Promise<Delivery> {
  try {
    return { result: "saved", revision: (await putChange(sheetId, change)).revision };
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
  return error.type === "changed-elsewhere"
    ? { result: "conflict", current: current(change, error) }
    : { result: "refused", message: error.message };
}

/** What stands there now, as the refusal tells it. */
function current(change: Change, error: ApiProblem): Current {
  const { answerId } = change;
  switch (change.kind) {
    case "grade": {
      const now = currentOf<Schemas["GradeOnSheet"]>(error);
      const { criterionId } = change;
      return { value: { kind: "grade", answerId, criterionId, mark: markOf(now) }, revision: now.revision };
    }
    case "reason": {
      const now = currentOf<{ text: string; revision: number }>(error);
      return { value: { kind: "reason", answerId, text: now.text }, revision: now.revision };
    }
    case "works": {
      const { revision, ...now } = currentOf<Schemas["WorksOnSheet"]>(error);
      return { value: { kind: "works", answerId, ...now }, revision };
    }
    case "preference": {
      const { revision, ...now } = currentOf<Schemas["PreferenceOnSheet"]>(error);
      return { value: { kind: "preference", answerId, ...now }, revision };
    }
    case "coverage": {
      const { revision, ...now } = currentOf<Schemas["CoverageOnSheet"]>(error);
      return { value: { kind: "coverage", answerId, ...now }, revision };
    }
    case "remark": {
      const { revision, id, ...now } = currentOf<Schemas["RemarkOnSheet"]>(error);
      return { value: { kind: "remark", answerId, remarkId: id, ...now }, revision };
    }
    case "guess": {
      const { revision, ...now } = currentOf<Schemas["GuessOnSheet"]>(error);
      return { value: { kind: "guess", answerId, ...now }, revision };
    }
  }
}
