import type { Schemas } from "../../api/client";
import { lineSpan } from "../../ui/format";
import { confidenceWords, VERDICTS, WORKS } from "../desk";
import { LevelMark } from "../rubric";

type Rater = Omit<Schemas["SplitRater"], "stances">;
type Remark = Rater["remarks"][number];

type SaidByRatersProps = {
  raters: Rater[];
  highest: number;
  keyPoints: Schemas["KeyPoint"][];
};

/** Of more raters it is folded, so that the talk is not far. */
const FEW = 6;

/** What raters wrote when they graded, one after the other; remarks on lines of the text stand at their lines. */
export function SaidByRaters({ raters, highest, keyPoints }: SaidByRatersProps) {
  return (
    <details open={raters.length <= FEW}>
      <summary className="cursor-pointer">
        <h2 className="inline">What they wrote when they graded</h2>
      </summary>
      <ul>
        {raters.map((rater) => (
          <RaterSaid key={rater.name} rater={rater} raters={raters} highest={highest} keyPoints={keyPoints} />
        ))}
      </ul>
    </details>
  );
}

function RaterSaid({ rater, raters, highest, keyPoints }: SaidByRatersProps & { rater: Rater }) {
  const elsewhere = rater.remarks.filter((r) => r.lines?.part !== "TEXT");
  const atLines = rater.remarks.length - elsewhere.length;
  const facts = [
    confidenceWords(rater.confidence),
    rater.works ? WORKS[rater.works] : "",
    atLines > 0 ? `${atLines} at lines of the text` : "",
  ].filter(Boolean);
  return (
    <li className="border-t border-rule py-1.5 text-sm [overflow-wrap:anywhere] last:border-b">
      <p>
        <LevelMark level={rater.level} notApplicable={rater.level === undefined} highest={highest} />{" "}
        <strong>{rater.name}</strong>
        {facts.length > 0 && <span className="text-ink-soft">, {facts.join(", ")}</span>}
      </p>
      {rater.reason && <p className="mt-0.5 whitespace-pre-line">{rater.reason}</p>}
      {elsewhere.map((remark, i) => (
        <RemarkLine key={i} remark={remark} />
      ))}
      <Points rater={rater} raters={raters} keyPoints={keyPoints} />
    </li>
  );
}

function RemarkLine({ remark }: { remark: Remark }) {
  const { lines } = remark;
  const where = lines && ` on ${lineSpan(lines.from, lines.to)}${lines.path === undefined ? "" : ` of ${lines.path}`}`;
  return (
    <p className="mt-0.5">
      <span className="text-ink-soft">
        {remark.stance === "CREDIT" ? "A credit" : "A fault"}
        {where}:
      </span>{" "}
      {remark.trait && <em>{remark.trait}. </em>}
      {remark.words}
    </p>
  );
}

/** Key points on which the raters do not all say the same. */
function Points({ rater, raters, keyPoints }: { rater: Rater; raters: Rater[]; keyPoints: Schemas["KeyPoint"][] }) {
  const parted = rater.coverage.filter((c) =>
    raters.some((r) => r.coverage.some((o) => o.point === c.point && o.verdict !== c.verdict)),
  );
  return parted.map((c) => (
    <p key={c.point} className="mt-0.5">
      <span className="text-ink-soft">{keyPoints[c.point]?.text ?? "A key point"}:</span> {VERDICTS[c.verdict]}
    </p>
  ));
}
