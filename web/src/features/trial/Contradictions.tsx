import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { count } from "../../ui/format";
import { Table } from "../../ui/Table";
import { outcomeWords } from "../evidence";

type Report = Schemas["EvidenceReport"];
type Graded = Schemas["GradedEvidence"];
type Otherwise = Graded["otherwise"][number];

type ContradictionsProps = { report: Report; graded: Graded };

/** Where raters and trials cannot both be right: for the lead to look at. Nothing is corrected. */
export function Contradictions({ report, graded }: ContradictionsProps) {
  const { contradictions, contradicting, otherwise, criterion } = graded;
  const titleOf = (promptId: string) => report.prompts.find((p) => p.promptId === promptId)?.title ?? "A prompt";
  const nameOf = (candidateId: string) => report.candidates.find((c) => c.candidateId === candidateId)?.name ?? "";
  return (
    <>
      <section className="mt-7">
        <h2 className="mb-1">Grades that trials speak against</h2>
        {contradictions.length === 0 ? (
          <p>
            {criterion === undefined
              ? "The rubric has no criterion that trials speak for."
              : `No highest grade for ${criterion.toLowerCase()} on code that fails, and no lowest on code that passes.`}
          </p>
        ) : (
          <>
            <p className="mb-2 max-w-3xl text-ink-soft">
              {count(contradicting, "grade", "grades")} to look at. A check can be wrong as well as a rater; nothing is
              corrected.
              <Cut listed={contradictions.length} of={contradicting} />
            </p>
            <ContradictionTable graded={graded} titleOf={titleOf} nameOf={nameOf} />
          </>
        )}
      </section>
      {otherwise.length > 0 && (
        <SaidOtherwise
          all={otherwise}
          said={graded.saidOtherwise}
          nameOf={(o) => `${titleOf(o.promptId)}, ${nameOf(o.candidateId)}`}
        />
      )}
    </>
  );
}

type ContradictionTableProps = {
  graded: Graded;
  titleOf: (promptId: string) => string;
  nameOf: (candidateId: string) => string;
};

function ContradictionTable({ graded: { contradictions, criterion }, titleOf, nameOf }: ContradictionTableProps) {
  return (
    <Table
      caption="Grades that trials speak against"
      rows={contradictions}
      rowKey={(c) => `${c.answerId} ${c.rater}`}
      saveAs="grades-that-trials-speak-against"
      columns={[
        {
          key: "answer",
          head: "Answer",
          rowHeader: true,
          sortBy: (c) => `${titleOf(c.promptId)} ${nameOf(c.candidateId)}`,
          cell: (c) => (
            <Link to={`../answers/${c.promptId}?answer=${c.answerId}`}>
              {titleOf(c.promptId)}, {nameOf(c.candidateId)}
            </Link>
          ),
        },
        { key: "rater", head: "Rater", sortBy: (c) => c.rater, cell: (c) => c.rater },
        {
          key: "level",
          head: criterion ?? "Level",
          sortBy: (c) => c.level,
          cell: (c) => `${c.level} of ${c.highest}`,
        },
        { key: "trial", head: "Trial", sortBy: (c) => c.outcome, cell: (c) => outcomeWords(c.outcome) },
      ]}
    />
  );
}

/** Says where a list does not hold all that was counted. */
function Cut({ listed, of }: { listed: number; of: number }) {
  return listed < of ? <> The first {count(listed, "of them is", "of them are")} listed.</> : null;
}

type SaidOtherwiseProps = { all: Otherwise[]; said: number; nameOf: (said: Otherwise) => string };

/** What raters said against trials, in their words. */
function SaidOtherwise({ all, said: times, nameOf }: SaidOtherwiseProps) {
  return (
    <section className="mt-7">
      <h2 className="mb-1">What raters said against trials</h2>
      <p className="mb-2 text-ink-soft">
        {count(times, "time", "times")}.
        <Cut listed={all.length} of={times} />
      </p>
      <ul className="grid max-w-3xl gap-2">
        {all.map((said) => (
          <li key={`${said.answerId} ${said.rater}`}>
            <Link to={`../answers/${said.promptId}?answer=${said.answerId}`}>{nameOf(said)}</Link>: {said.rater} says it{" "}
            {WORKS[said.works]}
            {said.byTrial !== undefined && `, the trial that it ${WORKS[said.byTrial]}`}. “{said.why}”
          </li>
        ))}
      </ul>
    </section>
  );
}

const WORKS: Record<Otherwise["works"], string> = {
  AS_IS: "works as it is",
  AFTER_REPAIR: "works after a repair",
  NOT: "does not work",
  GAVE_UP: "does not work and says so",
  SAID_DONE: "does not work and says it is done",
  NOT_TRIED: "was not tried",
};
