import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { lineSpan } from "../../ui/format";
import { LevelMark } from "../rubric";

function remarksOn(answerId: string, grades: Schemas["PromptGrades"]) {
  return grades.raters.flatMap((r) =>
    r.answers
      .filter((a) => a.answerId === answerId)
      .flatMap((a) => a.remarks.map((remark) => ({ name: r.name, remark }))),
  );
}

function linesInWords(lines: NonNullable<Schemas["RemarkContent"]["lines"]>): string {
  const span = lineSpan(lines.from, lines.to);
  return lines.path === undefined ? span : `${span} of ${lines.path}`;
}

type AnswerGradesProps = {
  answerId: string;
  grades: Schemas["PromptGrades"];
  criteria: Schemas["CriterionView"][];
};

/** Grades, reasons and remarks on one answer, rater by rater. */
export function AnswerGrades({ answerId, grades, criteria }: AnswerGradesProps) {
  if (grades.raters.length === 0) {
    return (
      <p className="border-y border-rule py-2 text-ink-soft">No rater has sent in a sheet with this answer yet.</p>
    );
  }
  return (
    <table className="w-full border-collapse border-y border-rule text-left">
      <caption className="sr-only">Grades and reasons by rater</caption>
      <thead>
        <tr className="text-sm text-ink-soft">
          <th scope="col" className="py-1 pr-2 font-medium">
            Rater
          </th>
          {criteria.map((c) => (
            <th key={c.id} scope="col" className="py-1 pr-2 font-medium">
              {c.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {grades.raters.map((rater) => {
          const own = rater.answers.find((a) => a.answerId === answerId);
          return <GradesOfRater key={rater.raterId} rater={rater} own={own} criteria={criteria} />;
        })}
        {grades.raters
          .flatMap((r) =>
            r.answers.filter((a) => a.answerId === answerId && a.reason).map((a) => ({ name: r.name, text: a.reason })),
          )
          .map((reason) => (
            <SaidRow key={reason.name} span={criteria.length + 1} head={<>{reason.name}:</>}>
              {reason.text}
            </SaidRow>
          ))}
        {remarksOn(answerId, grades).map(({ name, remark }, i) => (
          <SaidRow
            key={i}
            span={criteria.length + 1}
            head={
              <>
                {name}, {remark.stance === "CREDIT" ? "a credit" : "a fault"}
                {remark.lines && ` on ${linesInWords(remark.lines)}`}:
              </>
            }
          >
            {remark.trait && <em className="mr-1">{remark.trait}.</em>}
            {remark.words}
          </SaidRow>
        ))}
      </tbody>
    </table>
  );
}

type SaidRowProps = { head: ReactNode; span: number; children: ReactNode };

function SaidRow({ head, span, children }: SaidRowProps) {
  return (
    <tr className="border-t border-rule">
      <td colSpan={span} className="py-1 text-sm">
        <span className="text-ink-soft">{head}</span> {children}
      </td>
    </tr>
  );
}

type GradesOfRaterProps = {
  rater: Schemas["PromptGrades"]["raters"][number];
  own: Schemas["PromptGrades"]["raters"][number]["answers"][number] | undefined;
  criteria: Schemas["CriterionView"][];
};

function GradesOfRater({ rater, own, criteria }: GradesOfRaterProps) {
  return (
    <tr className="border-t border-rule align-top">
      <th scope="row" className="py-1 pr-2 font-normal">
        {rater.name}
        <span className="block text-sm text-ink-soft">answer {own?.number} on the sheet</span>
      </th>
      {criteria.map((c) => {
        const grade = own?.grades.find((g) => g.criterionId === c.id);
        const level = c.levels.find((l) => l.level === grade?.level);
        return (
          <td key={c.id} className="py-1 pr-2">
            <LevelMark
              level={grade?.level}
              notApplicable={grade?.notApplicable ?? false}
              highest={c.levels.length - 1}
              title={level?.name}
            />
          </td>
        );
      })}
    </tr>
  );
}
