import type { Schemas } from "../../api/client";
import { fixed } from "../../ui/format";
import { FigureText } from "../../ui/IntervalRow";

type Report = Schemas["RecommendationReport"];
type Finding = Report["findings"][number];

/** How a condition is met, in words. */
type Met = "holds" | "is not sure" | "does not hold";

type Condition = { key: string; what: string; met: Met; figure?: Schemas["Figure"]; floor?: number };

const UNMET = ["agreement-below-floor", "agreement-may-be-chance", "agreement-undefined"];

const has = (report: Report, ...types: Finding["type"][]) => report.findings.some((f) => types.includes(f.type));

function onAgreement(report: Report, own: Report["agreement"][number]): Condition {
  const said = report.findings.filter((f) => f.criterion === own.name).map((f) => f.type);
  return {
    key: own.criterionId,
    what: `Agreement on ${own.name}`,
    met: said.some((t) => UNMET.includes(t))
      ? "does not hold"
      : said.includes("agreement-uncertain")
        ? "is not sure"
        : "holds",
    figure: own.value,
    floor: own.floor,
  };
}

/** What must hold before grades may decide, by the rule. */
export function conditionsOf(report: Report): Condition[] {
  const { terms } = report.rule;
  const met = (...types: Finding["type"][]): Met => (has(report, ...types) ? "does not hold" : "holds");
  return [
    { key: "brief", what: "The rule was closed with the brief", met: met("brief-open") },
    {
      key: "raters",
      what: `Every answer has ${terms.minimumRaters} raters or more`,
      met: met("too-few-raters"),
    },
    ...report.agreement.map((a) => onAgreement(report, a)),
    ...(terms.strictOnMasking
      ? [{ key: "masking", what: "No answer names a candidate", met: met("masking-broken") }]
      : []),
    ...(terms.strictOnSplits
      ? [{ key: "splits", what: "No split is without a settled grade", met: met("splits-open") }]
      : []),
  ];
}

const LOOKS: Record<Met, string> = {
  holds: "",
  "is not sure": "border-b-2 border-ochre",
  "does not hold": "border-b-2 border-clay",
};

/** Each condition of the rule with its figure. */
export function Conditions({ report }: { report: Report }) {
  return (
    <section>
      <h2 className="text-base">What must hold before grades decide</h2>
      <ul aria-label="Conditions of the rule" className="mt-1 grid gap-0.5 text-sm">
        {conditionsOf(report).map((c) => (
          <li key={c.key}>
            {c.what}
            {c.figure && (
              <>
                {" "}
                <FigureText figure={c.figure} decimals={2} />
              </>
            )}
            {c.floor !== undefined && `, floor ${fixed(c.floor, 2)}`}: <span className={LOOKS[c.met]}>{c.met}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
