import { scaleBand, scaleLinear } from "@visx/scale";
import { Bar, Line } from "@visx/shape";
import type { Schemas } from "../../../api/client";
import { fixed } from "../../../ui/format";
import { Chosen, Panel } from "./Panel";
import { SmallInterval } from "./Interval";
import type { ViewProps } from "./Workbench";

/** Each rater: how strict, which levels they use, how their grades move, and what the others are without them. */
export function Raters({ report, narrowed, whole, filter, narrow }: ViewProps) {
  const raters = [...report.raters].sort((a, b) => a.name.localeCompare(b.name, "en"));
  const most = Math.max(1, ...narrowed.useOfScale.flatMap((u) => u.counts));
  const edge = Math.max(
    0.5,
    ...report.severity.flatMap((r) => [Math.abs(r.severity.low ?? 0), Math.abs(r.severity.high ?? 0)]),
  );
  return (
    <Panel title="Raters" aside="kind ← 0 → strict" how={<How />}>
      <ul>
        {raters.map(({ raterId, name }) => {
          const use = narrowed.useOfScale.find((u) => u.raterId === raterId);
          const severity = report.severity.find((s) => s.raterId === raterId)?.severity;
          return (
            <li key={raterId} className="border-t border-rule first:border-t-0">
              <Chosen
                chosen={filter.rater === raterId}
                onChoose={(chosen) => narrow({ rater: chosen ? raterId : undefined })}
                className="block w-full px-1 py-0.5"
              >
                <span className="flex items-end gap-2">
                  <span className="min-w-0 flex-1 truncate" title={name}>
                    {name}
                  </span>
                  {severity && (
                    <span title={`${signed(severity.value)} levels below the others`}>
                      <span className="sr-only">, {signed(severity.value)} levels below the others</span>
                      <SmallInterval figure={severity} from={-edge} to={edge} mark={0} wide />
                    </span>
                  )}
                  {use && <Histogram counts={use.counts} most={most} name={name} />}
                </span>
                <span className="block text-xs text-ink-soft">{beside(raterId, report, whole)}</span>
              </Chosen>
            </li>
          );
        })}
      </ul>
    </Panel>
  );
}

const signed = (value: number | undefined) =>
  value === undefined ? "no figure" : `${value >= 0 ? "+" : "−"}${fixed(Math.abs(value), 2)}`;

/** What is known of a rater beside severity, in a line. */
function beside(raterId: string, report: ViewProps["report"], whole: Schemas["OnCriterion"] | undefined): string {
  const drift = whole?.drift.find((d) => d.raterId === raterId)?.slope.value;
  const without = whole?.withoutRater.find((w) => w.raterId === raterId)?.alpha.value;
  const self = report.selfAgreement.find((s) => s.raterId === raterId)?.kappa.value;
  return [
    drift !== undefined && `${signed(drift)} a sheet`,
    without !== undefined && `α without ${fixed(without, 2)}`,
    self !== undefined && `κ with themselves ${fixed(self, 2)}`,
  ]
    .filter((part) => part !== false)
    .join(", ");
}

type HistogramProps = { counts: number[]; most: number; name: string };

const BAR = 9;
const TALLEST = 24;

/** How often each level was given; the numbers stand in the words for readers aloud. */
function Histogram({ counts, most, name }: HistogramProps) {
  const words = counts.map((n, level) => `${String(n)} × ${String(level)}`).join(", ");
  const width = BAR * counts.length;
  const x = scaleBand<number>({ domain: counts.map((_, level) => level), range: [0, width], padding: 0.1 });
  const y = scaleLinear<number>({ domain: [0, most], range: [0, TALLEST] });
  return (
    <svg role="img" aria-label={`${name}: ${words}`} width={width} height={TALLEST + 1} className="shrink-0">
      <title>{words}</title>
      {counts.map((n, level) => (
        <Bar key={level} x={x(level) ?? 0} y={TALLEST - y(n)} width={x.bandwidth()} height={y(n)} fill="var(--tarn)" />
      ))}
      <Line from={{ x: 0, y: TALLEST + 0.5 }} to={{ x: width, y: TALLEST + 0.5 }} stroke="var(--edge)" />
    </svg>
  );
}

function How() {
  return (
    <>
      <p>
        The dot is severity over all criteria with its 95 % interval: levels below the others on the same answers, by
        least squares; 0 is the average rater. Bars count the levels that they gave, lowest first, of what is looked at.
      </p>
      <p>
        “A sheet” is how far their grades move from sheet to sheet against the others’ of the same answers. “α without”
        is that of the others alone. With themselves: Cohen’s κ, quadratic, where answers came twice. To agree less is
        not to be wrong.
      </p>
      <p>
        <a href="#severity-table">The numbers and counts</a>
      </p>
    </>
  );
}
