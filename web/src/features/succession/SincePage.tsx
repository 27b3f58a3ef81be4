import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { count, day, fixed } from "../../ui/format";
import { type Axis, type FigureLike, FigureText, IntervalAxis, IntervalRow, sign } from "../../ui/IntervalRow";
import { Note } from "../../ui/Note";
import { Query, WORKED_OUT } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { CandidateName } from "../candidate";
import { HiddenStandings, Views } from "../recommendation";
import { useStudy } from "../study";
import { sinceTheLast } from "./api";

type Report = Schemas["SinceReport"];
type Scaled = Report["candidates"][number];

/** What changed since the study before, and whether the ruler moved between the two. */
export function SincePage() {
  const study = useStudy();
  const hidden = study.stage === "GRADING";
  const since = useQuery({ ...sinceTheLast(study.id), enabled: !hidden });
  useTitle(`Since the last · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>Since the last</h1>
      <Query of={since} what="what changed" long={WORKED_OUT}>
        {(report) => (
          <div className="max-w-5xl">
            <p className="mt-1 mb-4 text-ink-soft">
              After <em>{report.title}</em>, whose grading ended on {day(report.endedAt)}.
            </p>
            <Ruler report={report} />
            <OneScale report={report} />
            <Changes report={report} />
          </div>
        )}
      </Query>
    </>
  );
}

const VERDICTS: Record<Report["ruler"]["verdict"], { tone: "good" | "info" | "caution"; words: string }> = {
  HELD: { tone: "good", words: "The ruler held: if it moved at all, then by less than matters." },
  MOVED_LITTLE: { tone: "info", words: "The ruler moved, by less than matters." },
  MOVED: { tone: "caution", words: "The ruler moved. Scores of the two studies cannot be compared as they stand." },
  UNCLEAR: { tone: "caution", words: "Whether the ruler moved cannot be told from so few answers." },
};

function Ruler({ report }: { report: Report }) {
  const { ruler, byCriterion } = report;
  if (ruler.answers === 0) {
    return <Note tone="caution">No answer was graded both times, so it is not known whether the ruler moved.</Note>;
  }
  const verdict = VERDICTS[ruler.verdict];
  return (
    <>
      <Note tone={verdict.tone}>
        <p className="font-medium">{verdict.words}</p>
        <p className="mt-1">
          {count(ruler.answers, "answer", "answers")} to {count(ruler.prompts, "prompt", "prompts")}{" "}
          {ruler.answers === 1 ? "was" : "were"} graded again, blind. The same answers get{" "}
          <Signed figure={ruler.shift} /> points now; {fixed(ruler.margin, 1)} matter.
        </p>
      </Note>
      <h2 className="mt-5 mb-1 text-base">By criterion</h2>
      <Table
        caption="By how much the same answers are scored higher now"
        rows={byCriterion}
        rowKey={(c) => c.criterion}
        saveAs="ruler-by-criterion"
        columns={[
          { key: "name", head: "Criterion", rowHeader: true, sortBy: (c) => c.name, cell: (c) => c.name },
          { key: "answers", head: "Answers", align: "right", cell: (c) => c.answers },
          {
            key: "shift",
            head: "Points of 100 now",
            align: "right",
            sortBy: (c) => c.shift.value ?? 0,
            cell: (c) => <Signed figure={c.shift} />,
          },
        ]}
      />
    </>
  );
}

/** A difference with its sign and interval. */
function Signed({ figure }: { figure: FigureLike }) {
  const signed = (value: number) => (value > 0 ? `+${fixed(value, 1)}` : fixed(value, 1));
  if (figure.value === undefined) {
    return <>not known</>;
  }
  return (
    <span className="whitespace-nowrap">
      {signed(figure.value)}
      {figure.low !== undefined && figure.high !== undefined && (
        <span className="text-ink-soft">
          {" "}
          ({signed(figure.low)} to {signed(figure.high)})
        </span>
      )}
    </span>
  );
}

const SCORE: Axis = { from: 0, to: 100, decimals: 0, marks: [] };

function OneScale({ report }: { report: Report }) {
  const place = (c: Scaled) => report.candidates.indexOf(c);
  const score = (key: "then" | "moved" | "now", head: string): Column<Scaled> => ({
    key,
    head,
    sortBy: (c) => c[key]?.value ?? -1,
    cell: (c) => {
      const figure = c[key];
      return figure === undefined ? (
        <span className="text-ink-soft">took no part</span>
      ) : (
        <FigureText figure={figure} decimals={1} />
      );
    },
  });
  return (
    <section className="mt-7">
      <h2>Old and new on one scale</h2>
      <p className="mb-1 max-w-3xl text-sm text-ink-soft">
        “On today’s ruler” is the score of then, moved as the same answers moved; its interval holds the uncertainty of
        both. The picture shows it, and below it the score of now.
      </p>
      <Table
        caption="Candidates of both studies on one scale"
        rows={report.candidates}
        rowKey={(c) => `${c.candidateId ?? ""} ${c.name} ${c.version}`}
        saveAs="on-one-scale"
        columns={[
          {
            key: "name",
            head: "Candidate",
            rowHeader: true,
            sortBy: (c) => c.name,
            cell: (c) => (
              <>
                <CandidateName name={c.name} index={place(c)} />
                {c.version !== "" && <span className="block text-sm text-ink-soft">{c.version}</span>}
              </>
            ),
          },
          {
            key: "picture",
            head: <IntervalAxis axis={SCORE} />,
            cell: (c) => (
              <>
                {c.moved && <IntervalRow figure={c.moved} axis={SCORE} {...sign(place(c))} loose />}
                {c.now && <IntervalRow figure={c.now} axis={SCORE} {...sign(place(c))} />}
              </>
            ),
          },
          score("then", "Then"),
          score("moved", "On today’s ruler"),
          score("now", "Now"),
        ]}
      />
    </section>
  );
}

function Changes({ report }: { report: Report }) {
  return (
    <section className="mt-7 max-w-3xl">
      <h2>What is otherwise than it was</h2>
      {report.changes.length === 0 ? (
        <p>Nothing: the same candidates, prompts, criteria, weights and raters.</p>
      ) : (
        <ul className="mt-1 list-disc pl-5">
          {report.changes.map((change) => (
            <li key={change} className="[overflow-wrap:anywhere]">
              {change}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
