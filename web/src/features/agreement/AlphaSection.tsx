import type { Schemas } from "../../api/client";
import { count, fixed } from "../../ui/format";
import { type Axis, FigureText, IntervalAxis, IntervalRow } from "../../ui/IntervalRow";
import { type Column, Table } from "../../ui/Table";
import { CoefficientChoice, OtherCoefficient, useCoefficient } from "./OtherCoefficients";
import { shareColumn } from "./SelfSection";

type Report = Schemas["AgreementReport"];
type Figures = Schemas["AgreementFigures"];

/** The coefficient that the rule looks at. */
export function decisiveFigure(report: Report, figures: Figures): Schemas["Figure"] {
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

/** Whether the two coefficients are so far apart on some criterion that it needs a word. */
export const doPart = (report: Report): boolean =>
  report.criteria.some((c) => Math.abs((c.overall.alpha.value ?? 0) - (c.overall.ac2.value ?? 0)) > PARTED);

export function AlphaSection({ report }: { report: Report }) {
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
    <section id="agreement-table" className="mt-8 scroll-mt-4">
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
      {doPart(report) && (
        <p className="mt-2 max-w-3xl text-sm">
          α and AC2 part where almost all grades are alike: α then has hardly any disagreement that chance could
          explain, and falls; AC2 does not. Look at the shares of equal grades beside them.
        </p>
      )}
      <HowAlphaIsMade report={report} />
    </>
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
