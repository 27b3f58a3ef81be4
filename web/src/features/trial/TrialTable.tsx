import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { count } from "../../ui/format";
import { type Column, Table } from "../../ui/Table";
import { CandidateName } from "../candidate";
import { outcomeWords, summaryWords } from "../evidence";

type Report = Schemas["EvidenceReport"];
type Answer = Schemas["AnswerEvidence"];
type Prompt = Report["prompts"][number];

type TrialTableProps = { report: Report; kind: string };

/** Prompt by candidate: how each answer stands by trial, to the answer by a click. */
export function TrialTable({ report, kind }: TrialTableProps) {
  const prompts = report.prompts.filter((p) => kind === "" || p.kind === kind);
  const cells = Map.groupBy(report.answers, (a) => `${a.promptId} ${a.candidateId}`);
  const at = (prompt: Prompt, candidateId: string) => cells.get(`${prompt.promptId} ${candidateId}`) ?? [];
  const columns: Column<Prompt>[] = [
    {
      key: "prompt",
      head: "Prompt",
      rowHeader: true,
      sortBy: (p) => p.title,
      cell: (p) => <Link to={`../answers/${p.promptId}`}>{p.title}</Link>,
    },
    ...report.candidates.map((c, index): Column<Prompt> => ({
      key: c.candidateId,
      head: <CandidateName name={c.name} index={index} />,
      sortBy: (p) => rank(at(p, c.candidateId)),
      cell: (p) => (
        <ul className="grid gap-1 text-sm">
          {at(p, c.candidateId).map((answer) => (
            <Standing key={answer.answerId} answer={answer} />
          ))}
        </ul>
      ),
    })),
  ];
  return (
    <Table
      caption="What came of trying, prompt by prompt"
      columns={columns}
      rows={prompts}
      rowKey={(p) => p.promptId}
      saveAs="trials-by-prompt"
    />
  );
}

const RANKS: Record<Answer["standing"], number> = { AS_IS: 4, AFTER_REPAIR: 3, FLAKY: 2, NOT: 1, NOT_TRIED: 0 };

const rank = (answers: Answer[]): number =>
  answers.length === 0 ? -1 : answers.reduce((sum, a) => sum + RANKS[a.standing], 0) / answers.length;

/** How an answer stands, as is, after a repair or not, in words. */
export function standingWords(answer: Answer): string {
  switch (answer.standing) {
    case "AS_IS":
      return "works as is";
    case "AFTER_REPAIR":
      return `after a repair of ${count(answer.lines ?? 0, "line", "lines")}`;
    case "FLAKY":
      return "now so, now so";
    case "NOT_TRIED":
      return "not tried";
    case "NOT":
      return answer.last ? summaryWords(answer.last) : "does not work";
  }
}

const LOOKS: Record<Answer["standing"], string> = {
  AS_IS: "border-lichen",
  AFTER_REPAIR: "border-ochre",
  FLAKY: "border-ochre",
  NOT: "border-clay",
  NOT_TRIED: "border-rule",
};

/** What an answer did to tests of a repository. */
const testsLine = ({ broken, mended }: Answer): string =>
  [count(broken, "test broken", "tests broken"), mended > 0 && `${mended} mended`].filter(Boolean).join(", ");

function Standing({ answer }: { answer: Answer }) {
  return (
    <li className={classes("border-l-2 pl-2", LOOKS[answer.standing])}>
      <Link to={`../answers/${answer.promptId}?answer=${answer.answerId}`}>
        {answer.attempt > 1 && `attempt ${answer.attempt}: `}
        {standingWords(answer)}
      </Link>
      {answer.turns.length > 1 && (
        <span className="block text-ink-soft">
          {answer.turns
            .map((t) => `${t.turn === 0 ? "first reply" : `follow-up ${t.turn}`} ${outcomeWords(t.summary.outcome)}`)
            .join(" → ")}
        </span>
      )}
      {answer.broken > 0 && <span className="block text-clay">{testsLine(answer)}</span>}
      {answer.warnings > 0 && (
        <span className="block text-ink-soft">{count(answer.warnings, "warning", "warnings")}</span>
      )}
    </li>
  );
}
