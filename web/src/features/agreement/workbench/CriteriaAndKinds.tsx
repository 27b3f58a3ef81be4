import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../../api/client";
import { count, fixed, percent } from "../../../ui/format";
import { useStudy } from "../../study";
import { COEFFICIENT_NAMES, COEFFICIENT_SOURCES } from "../coefficients";
import { doPart } from "../AlphaSection";
import { CoefficientChoice, coefficientsOf, figureOf, useCoefficient } from "../OtherCoefficients";
import { Chosen, Panel } from "./Panel";
import { SmallInterval } from "./Interval";
import type { ViewProps } from "./Workbench";

type Figure = Schemas["Figure"];

/** Each criterion over all kinds and within each, against its floor. A cell narrows the others to it. */
export function CriteriaAndKinds({ report, criterion, narrowed, filter, narrow }: ViewProps) {
  const { chosen, choose } = useCoefficient();
  const figures = useFigures(report);
  const kinds = report.criteria[0]?.byKind ?? [];
  const narrowedDown = filter.rater !== undefined || filter.prompt !== undefined;
  const decides = report.coefficient === "AC2_ORDINAL" ? "AC2" : "α";
  const sign = chosen ? COEFFICIENT_NAMES[chosen] : decides;
  return (
    <Panel title="Criteria and kinds" aside={chosen ? "" : `${decides}, line: floor`} how={<How report={report} />}>
      <table className="w-full border-collapse text-left">
        <caption className="sr-only">{sign} by criterion and kind; a cell narrows the other views</caption>
        <Kinds names={["all", ...kinds.map((k) => k.name)]} />
        <tbody>
          {report.criteria.map((c) => (
            <tr key={c.criterionId} className="border-t border-rule">
              <th scope="row" className="max-w-24 truncate py-0.5 pr-1 text-sm font-normal" title={c.name}>
                {c.name}
              </th>
              {[undefined, ...c.byKind].map((kind) => {
                const parts = narrowed.cells.filter(
                  (p) => p.criterionId === c.criterionId && (kind === undefined || p.kindId === kind.kindId),
                );
                return (
                  <td key={kind?.kindId ?? "all"} className="py-0.5 align-top">
                    <Cell
                      figure={figures(c, kind)}
                      floor={chosen ? undefined : c.floor}
                      of={`${c.name}, ${kind?.name.toLowerCase() ?? "all kinds"}: ${sign}`}
                      chosen={c === criterion && filter.kind === kind?.kindId}
                      onChoose={(on) =>
                        narrow({
                          criterion: c.criterionId,
                          kind: on ? kind?.kindId : undefined,
                          ...(c === criterion ? {} : { levels: undefined }),
                        })
                      }
                      looked={
                        narrowedDown || (filter.levels !== undefined && c === criterion)
                          ? { apart: sum(parts, "apart"), pairs: sum(parts, "pairs") }
                          : undefined
                      }
                    />
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-2">
        <CoefficientChoice inLine chosen={chosen} decides={decides} onChoose={choose} />
      </div>
    </Panel>
  );
}

function Kinds({ names }: { names: string[] }) {
  return (
    <thead>
      <tr>
        <td />
        {names.map((name) => (
          <th key={name} scope="col" className="max-w-16 truncate px-1 text-xs font-normal text-ink-soft" title={name}>
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}

const sum = (parts: Schemas["CellPart"][], of: "apart" | "pairs") => parts.reduce((all, p) => all + p[of], 0);

/** The figure of a cell: of what decides, or of the coefficient that is chosen. */
function useFigures(report: ViewProps["report"]) {
  const { chosen } = useCoefficient();
  const all = useQuery({ ...coefficientsOf(useStudy().id), enabled: chosen !== undefined });
  return (c: ViewProps["criterion"], kind: ViewProps["criterion"]["byKind"][number] | undefined): Figure => {
    if (chosen === undefined) {
      const figures = kind?.figures ?? c.overall;
      return report.coefficient === "AC2_ORDINAL" ? figures.ac2 : figures.alpha;
    }
    const within = all.data?.within.find((w) => w.criterionId === c.criterionId && w.kindId === kind?.kindId);
    if (within) {
      return figureOf(within, chosen);
    }
    return { undefinedReason: all.data ? "no answer of it has two grades" : "it is still being worked out" };
  };
}

type CellProps = {
  figure: Figure;
  floor: number | undefined;
  of: string;
  chosen: boolean;
  onChoose: (on: boolean) => void;
  /** Pairs of grades that are looked at, and those of them that part. */
  looked: { apart: number; pairs: number } | undefined;
};

function Cell({ figure, floor, of, chosen, onChoose, looked }: CellProps) {
  const interval =
    figure.low !== undefined && figure.high !== undefined
      ? `, ${fixed(figure.low, 2)} to ${fixed(figure.high, 2)}`
      : figure.noIntervalReason !== undefined
        ? `, no interval: ${figure.noIntervalReason}`
        : "";
  const rest =
    figure.value === undefined
      ? `: ${figure.undefinedReason ?? "not known"}`
      : interval + (floor === undefined ? "" : `; floor ${fixed(floor, 2)}`);
  const value = figure.value === undefined ? "none" : fixed(figure.value, 2);
  return (
    <Chosen chosen={chosen} onChoose={onChoose} className="block w-full px-1 py-0.5">
      <span title={value + rest} className="block">
        <span className="sr-only">{of} </span>
        <span className="block tabular-nums">{value}</span>
        <span className="sr-only">{rest} </span>
        <SmallInterval figure={figure} from={0} to={1} {...(floor !== undefined && { mark: floor })} />
        {looked && (
          <span className="block text-xs whitespace-nowrap text-ink-soft">
            {inShort(looked)}
            <span className="sr-only">
              : {looked.apart} of {looked.pairs} pairs of grades part
            </span>
          </span>
        )}
      </span>
    </Chosen>
  );
}

/** Where two levels are looked at all pairs part, so that their number says more. */
function inShort({ apart, pairs }: { apart: number; pairs: number }): string {
  return apart === pairs ? count(pairs, "pair", "pairs") : percent(apart / pairs);
}

function How({ report }: { report: ViewProps["report"] }) {
  const { chosen } = useCoefficient();
  return (
    <>
      <p>
        {chosen
          ? COEFFICIENT_SOURCES[chosen]
          : "The coefficient that the rule looks at, with its 95 % interval for these raters on other prompts; the line is the floor. Krippendorff (2011), or Gwet (2014) for AC2; the interval leaves out each prompt in turn (Arvesen, 1969)."}
      </p>
      {doPart(report) && (
        <p>
          α and AC2 part where almost all grades are alike: α then has hardly any disagreement that chance could
          explain, and falls; AC2 does not.
        </p>
      )}
      <p>
        Values are of all grades. Where a rater, a prompt or two levels are looked at, the small number is the share of
        pairs of grades of those that part; the words of a cell count them. A picture begins at 0.
      </p>
      <p>
        <a href="#agreement-table">The numbers, counts and other coefficients</a>
      </p>
    </>
  );
}
