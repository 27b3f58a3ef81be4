import type { Schemas } from "../../api/client";
import { chance, count, fixed } from "../../ui/format";
import { type Column, Table } from "../../ui/Table";

type Forecast = Schemas["ForecastView"];
type Lead = Forecast["leads"][number];

type OutlookProps = { forecast: Forecast; rule: Schemas["RuleTerms"]; stale: boolean };

/** What the rule would say of studies of one size, by how far one candidate truly is ahead. */
export function Outlook({ forecast, rule, stale }: OutlookProps) {
  return (
    <div aria-busy={stale} className={stale ? "opacity-60" : undefined}>
      <p className="mb-2 font-serif text-lg">{sentence(forecast)}</p>
      <Table
        caption="Chance of each outcome, by true lead"
        rows={forecast.leads}
        rowKey={(l) => String(l.points)}
        columns={leadColumns(rule.byKind)}
      />
      <p className="mt-2 text-sm text-ink-soft">
        {fixed(forecast.hours, 0)} hours of grading, {fixed(forecast.hoursARater, 1)} a rater.{" "}
        {forecast.halfWidth.value === undefined
          ? "No study of this size has intervals."
          : `A difference is known to about ± ${fixed(forecast.halfWidth.value, 1)} points.`}{" "}
        {rule.looks > 1 && (
          <>
            With {rule.looks} looks these are the chances at the last one, by what the earlier ones leave of the
            allowance; a clear leader may be found sooner.{" "}
          </>
        )}
        From {forecast.studies} made-up studies for each lead, so that a chance is right to about{" "}
        {fixed(50 / Math.sqrt(forecast.studies), 0)} in 100.
      </p>
    </div>
  );
}

function sentence(forecast: Forecast): string {
  if (forecast.leads.every((l) => l.withheld > 0.95)) {
    return "Nothing: almost every study of this size would be withheld.";
  }
  const two = forecast.leads[2];
  const found = two
    ? `a candidate truly ahead by ${fixed(two.points, 1)} points would be recommended in ${chance(right(two))} of studies like this`
    : "";
  return forecast.smallestLead === undefined
    ? `Too little for any lead: ${found}, and even one of 40 points in less than four of five.`
    : `Enough for a lead of ${fixed(forecast.smallestLead, 0)} points, which is recommended in four of five studies; ${found}.`;
}

/** Recommended, and truly ahead; with no lead nobody is. */
function right(lead: Lead): number {
  return lead.points === 0 ? 0 : lead.recommended - lead.wrong;
}

const SHADES: { of: (l: Lead) => number; className: string }[] = [
  { of: right, className: "bg-moss" },
  { of: (l) => l.recommended - right(l), className: "bg-clay" },
  { of: (l) => l.safeChoices, className: "bg-moss/50" },
  { of: (l) => l.byKind, className: "bg-tarn/50" },
  { of: (l) => l.undecided, className: "bg-edge" },
];

/** The chances side by side; the numbers stand beside it. */
function Shares({ lead }: { lead: Lead }) {
  return (
    <span aria-hidden="true" className="flex h-3 w-48 border border-edge">
      {SHADES.map((s) => (
        <span key={s.className} className={s.className} style={{ width: `${100 * s.of(lead)}%` }} />
      ))}
    </span>
  );
}

function leadColumns(byKind: boolean): Column<Lead>[] {
  const share = (key: string, head: string, of: (l: Lead) => number): Column<Lead> => ({
    key,
    head,
    align: "right",
    cell: (l) => chance(of(l)),
  });
  return [
    {
      key: "lead",
      head: "Truly ahead by",
      rowHeader: true,
      cell: (l) => (l.points === 0 ? "nothing: all are equal" : `${fixed(l.points, 1)} points`),
    },
    { key: "picture", head: "All together", cell: (l) => <Shares lead={l} /> },
    share("right", "Recommended", right),
    share("wrong", "Recommended wrongly", (l) => l.recommended - right(l)),
    share("safe", "Safe choices", (l) => l.safeChoices),
    ...(byKind ? [share("kind", "By kind", (l: Lead) => l.byKind)] : []),
    share("open", "Undecided", (l) => l.undecided),
    share("none", "Withheld", (l) => l.withheld),
  ];
}

type Way = Schemas["WayView"];

type UsesTableProps = {
  uses: Way[];
  planned: { promptsAKind: number; ratersAnAnswer: number; attempts: number; hours: number };
  stale: boolean;
  leastRaters: number;
};

/** The same hours spent otherwise: prompts decide most, and agreement needs its overlap. */
export function UsesTable({ uses, planned, stale, leastRaters }: UsesTableProps) {
  const isPlanned = (w: Way) =>
    w.promptsAKind === planned.promptsAKind &&
    w.ratersAnAnswer === planned.ratersAnAnswer &&
    w.attempts === planned.attempts;
  return (
    <section aria-busy={stale} className={stale ? "mt-6 opacity-60" : "mt-6"}>
      <h3>Best use of these {fixed(planned.hours, 0)} hours</h3>
      <Table
        caption="Other ways to spend the same hours"
        rows={uses}
        rowKey={(w) => `${w.promptsAKind} ${w.ratersAnAnswer} ${w.attempts}`}
        columns={[
          {
            key: "what",
            head: "Study",
            rowHeader: true,
            cell: (w) => (
              <>
                {count(w.promptsAKind, "prompt", "prompts")} of each kind, {count(w.ratersAnAnswer, "rater", "raters")}{" "}
                an answer{w.attempts > 1 ? `, ${w.attempts} attempts` : ""}
                {isPlanned(w) && <span className="text-ink-soft"> (as planned)</span>}
                {w.ratersAnAnswer < leastRaters && (
                  <span className="text-ink-soft"> (the rule asks for {leastRaters})</span>
                )}
              </>
            ),
          },
          {
            key: "found",
            head: "A lead of two margins is recommended",
            align: "right",
            sortBy: (w) => w.found,
            cell: (w) => chance(w.found),
          },
          {
            key: "withheld",
            head: "Withheld",
            align: "right",
            sortBy: (w) => w.withheld,
            cell: (w) => chance(w.withheld),
          },
          { key: "hours", head: "Hours", align: "right", sortBy: (w) => w.hours, cell: (w) => fixed(w.hours, 0) },
        ]}
      />
    </section>
  );
}

type Reading = Schemas["WithholdingView"];

const READINGS: Record<Reading["floorOn"], string> = {
  ESTIMATE: "the estimate",
  LOWER_LIMIT: "the lower limit of its interval",
  UPPER_LIMIT: "the upper limit: withheld only when too low beyond doubt",
};

/** What each reading of the floor does at this size, so that it is chosen knowingly. */
export function FloorTable({ readings, chosen }: { readings: Reading[]; chosen: Reading["floorOn"] }) {
  return (
    <section className="mt-6">
      <h3>How often agreement withholds a study of this size</h3>
      <Table
        caption="Withheld for agreement, by what must reach the floor"
        rows={readings}
        rowKey={(r) => r.floorOn}
        columns={[
          {
            key: "on",
            head: "What must reach the floor",
            rowHeader: true,
            cell: (r) => (
              <>
                {READINGS[r.floorOn]}
                {r.floorOn === chosen && <span className="text-ink-soft"> (chosen)</span>}
              </>
            ),
          },
          { key: "good", head: "Good raters", align: "right", cell: (r) => chance(r.good) },
          { key: "middling", head: "Usual raters", align: "right", cell: (r) => chance(r.middling) },
          { key: "guessing", head: "Guesses", align: "right", cell: (r) => chance(r.guessing) },
        ]}
      />
    </section>
  );
}
