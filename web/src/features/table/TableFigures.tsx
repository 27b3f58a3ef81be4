import type { Schemas } from "../../api/client";
import { fixed, percent } from "../../ui/format";
import { type FigureLike, FigureText, IntervalRow } from "../../ui/IntervalRow";
import { Table } from "../../ui/Table";
import { COEFFICIENT_NAMES } from "../agreement";

type Figures = Schemas["TableAgreementView"];

const AXIS = {
  from: -0.2,
  to: 1,
  decimals: 2,
  marks: [0, 0.5, 1].map((at) => ({ at, label: at.toString() })),
};

const inWords = (figure: FigureLike) =>
  figure.value === undefined ? `– (${figure.undefinedReason})` : fixed(figure.value, 2);

/** Everything that a table tells of its raters. */
export function TableFigures({ figures }: { figures: Figures }) {
  return (
    <>
      <Table
        caption="Agreement of all raters"
        rows={figures.coefficients}
        rowKey={(c) => c.name}
        columns={[
          { key: "name", head: "Over all raters", rowHeader: true, cell: (c) => COEFFICIENT_NAMES[c.name] },
          { key: "drawn", head: "From −0.2 to 1", cell: (c) => <IntervalRow figure={c.figure} axis={AXIS} /> },
          {
            key: "figure",
            head: "Value, 95 % interval",
            align: "right",
            cell: (c) => <FigureText figure={withoutReason(c.figure)} decimals={3} />,
          },
        ]}
      />
      {figures.severities.length > 0 && <Severities figures={figures} />}
      <Pairs figures={figures} />
      {figures.splitCount > 0 && <Splits figures={figures} />}
    </>
  );
}

/** Where a coefficient has no interval of its own, that is nothing to explain. */
function withoutReason(figure: FigureLike): FigureLike {
  const { noIntervalReason, ...rest } = figure;
  return noIntervalReason === "it was not asked for" ? rest : figure;
}

function Severities({ figures }: { figures: Figures }) {
  return (
    <section className="mt-6">
      <h2>Raters</h2>
      <p className="mb-2 text-sm text-ink-soft">
        Levels below the others on the same units: above 0 is strict, below 0 kind.
      </p>
      <Table
        caption="Raters"
        rows={figures.severities}
        rowKey={(s) => s.rater}
        columns={[
          { key: "rater", head: "Rater", rowHeader: true, sortBy: (s) => s.rater, cell: (s) => s.rater },
          {
            key: "severity",
            head: "Severity",
            align: "right",
            sortBy: (s) => s.severity.value ?? 0,
            cell: (s) => <FigureText figure={s.severity} decimals={2} />,
          },
          { key: "values", head: "Values", align: "right", sortBy: (s) => s.values, cell: (s) => s.values },
          {
            key: "ends",
            head: "At the ends",
            align: "right",
            sortBy: (s) => s.shareAtEnds,
            cell: (s) => percent(s.shareAtEnds),
          },
        ]}
      />
    </section>
  );
}

function Pairs({ figures }: { figures: Figures }) {
  const ordered = figures.severities.length > 0;
  return (
    <section className="mt-6">
      <h2>Each two raters</h2>
      <Table
        caption="Cohen’s kappa of each two raters"
        rows={figures.pairs}
        rowKey={(p) => JSON.stringify([p.first, p.second])}
        columns={[
          { key: "first", head: "First", rowHeader: true, sortBy: (p) => p.first, cell: (p) => p.first },
          { key: "second", head: "Second", sortBy: (p) => p.second, cell: (p) => p.second },
          { key: "units", head: "Units", align: "right", sortBy: (p) => p.units, cell: (p) => p.units },
          {
            key: "kappa",
            head: "κ",
            align: "right",
            sortBy: (p) => p.kappa.value ?? -2,
            cell: (p) => inWords(p.kappa),
          },
          ...(ordered
            ? ([
                {
                  key: "linear",
                  head: "κ linear",
                  align: "right",
                  sortBy: (p) => p.linear.value ?? -2,
                  cell: (p) => inWords(p.linear),
                },
                {
                  key: "quadratic",
                  head: "κ quadratic",
                  align: "right",
                  sortBy: (p) => p.quadratic.value ?? -2,
                  cell: (p) => inWords(p.quadratic),
                },
              ] satisfies Parameters<typeof Table<Figures["pairs"][number]>>[0]["columns"])
            : []),
        ]}
      />
    </section>
  );
}

function Splits({ figures }: { figures: Figures }) {
  return (
    <section className="mt-6">
      <h2>Splits</h2>
      <p className="mb-2 text-sm text-ink-soft">
        Units whose values lie two levels or more apart, widest first
        {figures.splitCount > figures.splits.length && `; the first ${figures.splits.length} of ${figures.splitCount}`}.
      </p>
      <Table
        caption="Splits"
        rows={figures.splits}
        rowKey={(s) => s.unit}
        columns={[
          { key: "unit", head: "Unit", rowHeader: true, sortBy: (s) => s.unit, cell: (s) => s.unit },
          { key: "distance", head: "Levels apart", align: "right", sortBy: (s) => s.distance, cell: (s) => s.distance },
          {
            key: "given",
            head: "Values",
            cell: (s) => s.given.map((g) => `${g.rater} ${g.value}`).join(" · "),
          },
        ]}
      />
    </section>
  );
}
