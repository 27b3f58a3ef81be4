import { queryOptions, useQuery } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { count, fixed, percent } from "../../ui/format";
import { type Axis, FigureText, IntervalAxis, IntervalRow } from "../../ui/IntervalRow";
import { Query, WORKED_OUT } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { SetAsideNote, studyKeys, useStudy } from "../study";
import { CoefficientChoice, OtherCoefficient, useCoefficient } from "./OtherCoefficients";
import { OnOneCriterion } from "./OnOneCriterion";
import { PairTable } from "./PairTable";
import { SelfSection, shareColumn } from "./SelfSection";
import { SplitSection } from "./SplitSection";
import { WhatHelps } from "./WhatHelps";

type Report = Schemas["AgreementReport"];
type Figures = Schemas["AgreementFigures"];

const agreementOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "agreement"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/agreement", { params: { path: { studyId } }, signal })),
  });

export function AgreementPage() {
  const study = useStudy();
  const agreement = useQuery(agreementOfStudy(study.id));
  useTitle(`Agreement · ${study.title}`);
  return (
    <Query of={agreement} what="the agreement" long={WORKED_OUT}>
      {(report) => (
        <div className="max-w-5xl">
          <h1>{headline(report)}</h1>
          <p className="mt-1 text-ink-soft">
            From {report.sentSheets} of {count(report.sheets, "sheet", "sheets")}; sheets count once they are sent in.
          </p>
          {study.role === "LEAD" && <WhatHelps report={report} on={nearestToItsFloor(report)} />}
          <SetAsideNote setAside={report.setAside} />
          <AlphaSection report={report} />
          <SeveritySection report={report} />
          {study.role === "LEAD" && <OnOneCriterion report={report} />}
          <PairTable report={report} />
          <SelfSection report={report} />
          <SplitSection report={report} />
        </div>
      )}
    </Query>
  );
}

function namesOf(criteria: Report["criteria"]): string {
  return criteria.map((c) => c.name.toLowerCase()).join(" and ");
}

/** The first thing to know, in words. */
function headline(report: Report): string {
  const weighty = report.criteria.filter((c) => c.weight > 0);
  const decisive = (c: Report["criteria"][number]) => decisiveFigure(report, c.overall).value;
  const below = weighty.filter((c) => (decisive(c) ?? Infinity) < c.floor);
  if (weighty.some((c) => decisive(c) === undefined)) {
    return "Agreement cannot be computed yet";
  }
  if (below.length > 0) {
    return `Raters do not agree well enough on ${namesOf(below)}`;
  }
  const uncertain = weighty.filter((c) => c.overall.verdict === "UNCERTAIN");
  return uncertain.length === 0
    ? "Raters agree well on every criterion"
    : `Agreement reaches the floor on every criterion; on ${namesOf(uncertain)} its interval also reaches below`;
}

/** Of those with weight. */
function nearestToItsFloor(report: Report): Report["criteria"][number] | undefined {
  const above = (c: Report["criteria"][number]) => (decisiveFigure(report, c.overall).value ?? Infinity) - c.floor;
  return report.criteria.filter((c) => c.weight > 0 && above(c) < Infinity).sort((a, b) => above(a) - above(b))[0];
}

/** The coefficient that the rule looks at. */
function decisiveFigure(report: Report, figures: Figures): Schemas["Figure"] {
  return report.coefficient === "AC2_ORDINAL" ? figures.ac2 : figures.alpha;
}

const VERDICTS: Record<Figures["verdict"], string> = {
  ABOVE: "above the floor",
  UNCERTAIN: "uncertain: the interval straddles the floor",
  BELOW: "below the floor",
  UNDEFINED: "",
};

type AlphaRow = { key: string; name: string; kind: string | undefined; floor: number; figures: Figures };

/** From how far apart the two coefficients are, the page says why. */
const PARTED = 0.2;

function AlphaSection({ report }: { report: Report }) {
  const { chosen, choose } = useCoefficient();
  const rows: AlphaRow[] = report.criteria.flatMap((c) => [
    { key: c.criterionId, name: c.name, kind: undefined, floor: c.floor, figures: c.overall },
    ...c.byKind.map((k) => ({
      key: `${c.criterionId} ${k.kindId}`,
      name: c.name,
      kind: k.name,
      floor: c.floor,
      figures: k.figures,
    })),
  ]);
  return (
    <section className="mt-6">
      <h2 className="mb-1">On each criterion, and within each kind</h2>
      <CoefficientChoice
        chosen={chosen}
        decides={report.coefficient === "AC2_ORDINAL" ? "AC2" : "α"}
        onChoose={choose}
      />
      {chosen ? <OtherCoefficient report={report} name={chosen} /> : <Decisive report={report} rows={rows} />}
    </section>
  );
}

/** The coefficient that the rule looks at, with shares and the other one beside it. */
function Decisive({ report, rows }: { report: Report; rows: AlphaRow[] }) {
  return (
    <>
      <Table
        caption="Agreement by criterion and kind"
        saveAs="agreement"
        rows={rows}
        rowKey={(r) => r.key}
        rowClass={(r) => (r.kind ? undefined : "border-t border-t-edge")}
        columns={alphaColumns(report, rows)}
      />
      {report.criteria.some((c) => Math.abs((c.overall.alpha.value ?? 0) - (c.overall.ac2.value ?? 0)) > PARTED) && (
        <p className="mt-2 max-w-3xl text-sm">
          α and AC2 part where almost all grades are alike: α then has hardly any disagreement that chance could
          explain, and falls; AC2 does not. Look at the shares of equal grades beside them.
        </p>
      )}
      <HowAlphaIsMade report={report} />
    </>
  );
}

function SeveritySection({ report }: { report: Report }) {
  const leads = useStudy().role === "LEAD";
  const far = Math.max(
    1,
    ...report.severity.flatMap((r) => [Math.abs(r.severity.low ?? 0), Math.abs(r.severity.high ?? 0)]),
  );
  const edge = Math.ceil(far * 2) / 2;
  const axis: Axis = { from: -edge, to: edge, decimals: 1, marks: [{ at: 0, label: "kind ← 0 → strict" }] };
  return (
    <section className="mt-8">
      <h2>{leads ? "Who is strict, who is kind" : "Strict or kind: your own place"}</h2>
      {report.severity.length === 0 ? (
        <p>No sheet is sent in yet.</p>
      ) : (
        <Table
          caption="Severity of raters"
          saveAs="severity"
          rows={report.severity}
          rowKey={(r) => r.raterId}
          columns={[
            { key: "name", head: "Rater", rowHeader: true, sortBy: (r) => r.name, cell: (r) => r.name },
            {
              key: "picture",
              head: <IntervalAxis axis={axis} />,
              cell: (r) => <IntervalRow figure={r.severity} axis={axis} />,
            },
            {
              key: "severity",
              head: "Levels below the others",
              sortBy: (r) => r.severity.value ?? 0,
              cell: (r) => <FigureText figure={r.severity} decimals={2} />,
            },
            {
              key: "ends",
              head: "Grades at the ends",
              align: "right",
              sortBy: (r) => r.shareAtEnds,
              cell: (r) => percent(r.shareAtEnds),
            },
            { key: "grades", head: "Grades", align: "right", sortBy: (r) => r.grades, cell: (r) => r.grades },
          ]}
        />
      )}
      <p className="mt-1 text-sm text-ink-soft">
        On the same answers, by least squares; 0 is the average rater. Standings are adjusted for it.
      </p>
    </section>
  );
}

function alphaColumns(report: Report, rows: AlphaRow[]): Column<AlphaRow>[] {
  const ac2Decides = report.coefficient === "AC2_ORDINAL";
  const lowest = Math.min(0, ...rows.map((r) => decisiveFigure(report, r.figures).low ?? 0));
  const marked = (floors: number[]): Axis => ({
    from: Math.floor(lowest * 5) / 5,
    to: 1,
    decimals: 1,
    marks: floors.map((floor) => ({ at: floor, label: `floor ${fixed(floor, 2)}` })),
  });
  const axis = marked([...new Set(rows.map((r) => r.floor))]);
  return [
    {
      key: "name",
      head: "Criterion, kind",
      rowHeader: true,
      cell: (r) =>
        r.kind ? <span className="pl-4">{r.kind}</span> : <strong className="font-semibold">{r.name}</strong>,
    },
    {
      key: "picture",
      head: <IntervalAxis axis={axis} />,
      cell: (r) => (
        <IntervalRow
          figure={decisiveFigure(report, r.figures)}
          axis={marked([r.floor])}
          loose={r.figures.resampled === "ANSWERS"}
        />
      ),
    },
    {
      key: "alpha",
      head: ac2Decides ? "AC2, 95 % interval" : "α, 95 % interval",
      cell: (r) => (
        <>
          <FigureText figure={decisiveFigure(report, r.figures)} decimals={2} />
          {!r.kind && <span className="block text-sm">{VERDICTS[r.figures.verdict]}</span>}
        </>
      ),
    },
    {
      key: "other",
      head: ac2Decides ? "α" : "AC2",
      align: "right",
      cell: (r) => {
        const other = ac2Decides ? r.figures.alpha : r.figures.ac2;
        return other.value === undefined ? "–" : fixed(other.value, 2);
      },
    },
    shareColumn("exact", "Same level", (r) => r.figures.exact),
    shareColumn("within", "Within one", (r) => r.figures.withinOne),
    BASIS,
  ];
}

type HowAlphaIsMadeProps = { report: Report };

function HowAlphaIsMade({ report }: HowAlphaIsMadeProps) {
  return (
    <details className="mt-2 text-sm">
      <summary className="text-tarn underline underline-offset-4">How this is made</summary>
      <p className="mt-1 max-w-3xl">
        {report.coefficient === "AC2_ORDINAL" ? "Gwet’s AC2 with ordinal weights" : "Krippendorff’s α, ordinal"}: 1 is
        perfect agreement, 0 what chance would give. Intervals say what these raters would agree to on other prompts:
        each prompt is left out in turn (a jackknife of log(1 − α)), because all answers to one prompt belong together,
        and wordings of one prompt count as one. Where there are fewer than five prompts, answers are left out instead;
        such an interval is dashed and says less. “Same level” and “within one” are shares of pairs of grades, not
        corrected for chance.
      </p>
    </details>
  );
}

/** Over how much a figure is. */
const BASIS: Column<AlphaRow> = {
  key: "basis",
  head: "Over",
  cell: (r) => (
    <span className="text-sm whitespace-nowrap text-ink-soft">
      {count(r.figures.answers, "answer", "answers")}, {count(r.figures.prompts, "prompt", "prompts")}
    </span>
  ),
};
