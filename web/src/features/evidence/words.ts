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

type TestChange = NonNullable<Schemas["CheckItem"]["change"]>;

const CHANGES: Record<TestChange, string> = {
  BROKEN: "broken",
  STILL_FAILS: "still fails",
  MENDED: "mended",
  NEW: "new",
  MAY_FAIL: "still fails, as it may",
  STILL_PASSES: "still passes",
};

const WORST_FIRST: TestChange[] = ["BROKEN", "STILL_FAILS", "MENDED", "NEW", "MAY_FAIL", "STILL_PASSES"];

/** How a test of a repository ended before an answer and after it. */
export const changeWords = (change: TestChange): string => CHANGES[change];

/** How one thing that was asked ended: of a repository's tests, against how it ended before. */
export function itemWords({
  sort,
  outcome,
  change,
}: Pick<Schemas["CheckItem"], "sort" | "outcome" | "change">): string {
  return change === undefined
    ? sort === "PAGE" && outcome === "WRONG_OUTPUT"
      ? "not as it must be"
      : outcomeWords(outcome)
    : change === "NEW"
      ? `new, ${outcomeWords(outcome)}`
      : changeWords(change);
}

/** Less is worse. */
export const changePlace = (change: TestChange): number => WORST_FIRST.indexOf(change);

/** Of several tests. */
const MANY: Partial<Record<TestChange, string>> = {
  STILL_FAILS: "still fail",
  MAY_FAIL: "still fail, as they may",
  STILL_PASSES: "still pass",
};

/** What is worst first; what was not tried before stays where it is. */
export function worstFirst<I extends Pick<Schemas["CheckItem"], "change">>(items: I[]): I[] {
  const place = ({ change }: I) => (change === undefined ? -1 : changePlace(change));
  return items.toSorted((a, b) => place(a) - place(b));
}

/** How many tests of a repository ended how, what is worst first; empty where nothing was tried before. */
export function changesLine(items: Pick<Schemas["CheckItem"], "change">[]): string {
  return WORST_FIRST.map((change) => {
    const n = items.filter((i) => i.change === change).length;
    return n === 0 ? "" : `${n} ${(n > 1 && MANY[change]) || changeWords(change)}`;
  })
    .filter((words) => words !== "")
    .join(", ");
}

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
