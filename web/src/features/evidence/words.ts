import type { Schemas } from "../../api/client";

type Trial = Schemas["TrialOfBoard"];
type Outcome = NonNullable<Trial["outcome"]>;

const OUTCOMES: Record<Outcome, string> = {
  DID_NOT_APPLY: "did not apply",
  DID_NOT_COMPILE: "did not compile",
  CRASHED: "crashed",
  TIMED_OUT: "timed out",
  OUT_OF_MEMORY: "out of memory",
  WRONG_OUTPUT: "wrong output",
  FAILED_TESTS: "failed tests",
  PASSED: "passed",
};

export const outcomeWords = (outcome: Outcome): string => OUTCOMES[outcome];

/** How a trial ended as a whole, with how much of what was asked passed where that says more. */
export function summaryWords({ outcome, passed, asked }: Schemas["TrialSummary"]): string {
  const part =
    asked > 1 &&
    (outcome === "WRONG_OUTPUT" || outcome === "FAILED_TESTS" || outcome === "CRASHED" || outcome === "TIMED_OUT");
  return part ? `${outcomeWords(outcome)}, ${passed} of ${asked}` : outcomeWords(outcome);
}

/** How one trial ended or how far it is, with how much of what was asked passed where that says more. */
export function trialWords(trial: Trial): string {
  if (trial.outcome === undefined) {
    return { WAITING: "waiting", RUNNING: "running", STOPPED: "stopped", ENDED: "ended" }[trial.state];
  }
  const part = trial.asked > 1 && trial.outcome !== "PASSED" && trial.outcome !== "DID_NOT_COMPILE";
  return part && trial.outcome !== "DID_NOT_APPLY"
    ? `${outcomeWords(trial.outcome)}, ${trial.passed} of ${trial.asked}`
    : outcomeWords(trial.outcome);
}

/** What trials of one code say together: flaky ones are never told by their last. */
export function together(trials: Trial[]): { words: string; flaky: boolean } {
  const ended = trials.filter((t) => t.outcome !== undefined);
  const passed = ended.filter((t) => t.outcome === "PASSED").length;
  if (passed > 0 && passed < ended.length) {
    return { words: `passed ${passed} of ${ended.length} times`, flaky: true };
  }
  const open = trials.find((t) => t.outcome === undefined);
  const first = ended[0];
  if (first === undefined) {
    return { words: open === undefined ? "" : trialWords(open), flaky: false };
  }
  const worst = ended.reduce((a, b) => (ORDER.indexOf(b.outcome) < ORDER.indexOf(a.outcome) ? b : a));
  return { words: trialWords(worst) + (open === undefined ? "" : " so far"), flaky: false };
}

const ORDER: (Outcome | undefined)[] = [
  "DID_NOT_APPLY",
  "DID_NOT_COMPILE",
  "CRASHED",
  "TIMED_OUT",
  "OUT_OF_MEMORY",
  "WRONG_OUTPUT",
  "FAILED_TESTS",
  "PASSED",
];
