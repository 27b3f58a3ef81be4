import type { Schemas } from "../../api/client";
import { count, fixed } from "../../ui/format";
import { Table } from "../../ui/Table";

type Graded = Schemas["GradedEvidence"];

const SHOWN: Record<Graded["seen"]["shown"], string> = {
  FROM_THE_START: "By the brief raters could see trials from the start.",
  AFTER_OWN_GRADE: "By the brief raters saw the trials of an answer once they had graded it.",
  NEVER: "By the brief raters did not see trials.",
};

const SIDES: Record<string, (seen: Graded["seen"]) => [string, Schemas["Figure"]][]> = {
  FROM_THE_START: (seen) => [
    ["Prompts whose trials raters saw", seen.withTrials],
    ["The other prompts", seen.withoutTrials],
  ],
  AFTER_OWN_GRADE: (seen) => [
    ["The same grades before trials were seen", seen.before],
    ["As they are now", seen.after],
  ],
};

/** Whether raters saw trials, how alike they graded with and without, and what people tried of their own. */
export function SeenByRaters({ graded }: { graded: Graded }) {
  const { seen, people, criterion } = graded;
  const sides = SIDES[seen.shown]?.(seen) ?? [];
  return (
    <>
      <section className="mt-7 max-w-3xl">
        <h2 className="mb-1">Whether raters saw them</h2>
        <p>
          {SHOWN[seen.shown]} {seen.shown !== "NEVER" && seen.answers === 0 && "Nobody looked at any."}
          {seen.answers > 0 &&
            `They looked at the trials of an answer that they graded ${count(seen.answers, "time", "times")}; ${
              seen.changed === 0
                ? "no grade was changed after it."
                : `${count(seen.changed, "grade was", "grades were")} changed after it, ${seen.raised} of them raised.`
            }`}
        </p>
        {criterion !== undefined && seen.answers > 0 && sides.length > 0 && (
          <Table
            caption={`Agreement on ${criterion.toLowerCase()} with and without trials`}
            rows={sides}
            rowKey={([name]) => name}
            saveAs="agreement-with-and-without-trials"
            columns={[
              { key: "of", head: `Agreement on ${criterion.toLowerCase()}`, rowHeader: true, cell: ([name]) => name },
              { key: "alpha", head: "α", align: "right", cell: ([, figure]) => figureWords(figure) },
            ]}
          />
        )}
      </section>
      {people.length > 0 && (
        <section className="mt-7 max-w-2xl">
          <h2 className="mb-1">What people tried of their own</h2>
          <Table
            caption="What people tried of their own"
            rows={people}
            rowKey={(p) => p.name}
            saveAs="tried-of-their-own"
            columns={[
              { key: "name", head: "Who", rowHeader: true, sortBy: (p) => p.name, cell: (p) => p.name },
              { key: "inputs", head: "Inputs", align: "right", sortBy: (p) => p.inputs, cell: (p) => p.inputs },
              { key: "repairs", head: "Repairs", align: "right", sortBy: (p) => p.repairs, cell: (p) => p.repairs },
            ]}
          />
        </section>
      )}
    </>
  );
}

function figureWords({ value, low, high, undefinedReason, noIntervalReason }: Schemas["Figure"]): string {
  if (value === undefined) {
    return undefinedReason ?? "cannot be said";
  }
  return low === undefined || high === undefined
    ? `${fixed(value, 2)} (no interval: ${noIntervalReason ?? "too few"})`
    : `${fixed(value, 2)} (${fixed(low, 2)} to ${fixed(high, 2)})`;
}
