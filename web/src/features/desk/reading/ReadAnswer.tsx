import { useMemo } from "react";
import type { Schemas } from "../../../api/client";
import { Markdown } from "../../../ui/Markdown";
import { type CodeOf, GradedAnswer } from "./GradedAnswer";
import { KeyPoints } from "../../prompt";

type ReadAnswerProps = {
  prompt: { kind: string; request: string; keyPoints: Schemas["KeyPoint"][] };
  text: string;
  raters: { name: string; remarks: Schemas["RemarkContent"][] }[];
  code: CodeOf;
};

/** An answer that several graded, below what was asked, with their remarks at the lines they are on. */
export function ReadAnswer({ prompt, text, raters, code }: ReadAnswerProps) {
  const remarks = useMemo(
    () =>
      raters.flatMap((rater) =>
        rater.remarks
          .filter((remark) => remark.lines)
          .map((remark, i) => ({ id: `${rater.name} ${i}`, by: rater.name, remark })),
      ),
    [raters],
  );
  return (
    <>
      <details className="mb-4 border-y border-rule py-2">
        <summary className="cursor-pointer font-medium">
          The prompt, {prompt.kind.toLowerCase()}, and what a right answer holds
        </summary>
        <Markdown text={prompt.request} below="section" className="mt-2" />
        {prompt.keyPoints.length > 0 && (
          <div className="mt-3 text-sm">
            <KeyPoints points={prompt.keyPoints} />
          </div>
        )}
      </details>
      <h2>The answer</h2>
      <GradedAnswer text={text} remarks={remarks} code={code} />
    </>
  );
}
