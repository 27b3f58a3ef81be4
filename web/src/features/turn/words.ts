import type { Schemas } from "../../api/client";

export type Verdict = Schemas["Said"]["verdict"];

export const TURN_VERDICTS: Record<Verdict, string> = {
  DOES: "does what was asked",
  DOES_NOT: "does not",
  GAVE_UP: "gave up: says itself that it does not",
  SAID_DONE: "says it is done, and is not",
};

export const VERDICTS_IN_ORDER: Verdict[] = ["DOES", "DOES_NOT", "GAVE_UP", "SAID_DONE"];
