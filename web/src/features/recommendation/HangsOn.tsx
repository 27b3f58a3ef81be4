import type { Schemas } from "../../api/client";
import { fixed, percent } from "../../ui/format";
import { FigureText } from "../../ui/IntervalRow";
import { Query } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { useRobustness } from "./shown";

type Robustness = Schemas["RobustnessReport"];

const FACTORS: Record<Robustness["without"][number]["factor"], string> = {
  PROMPT: "Prompt",
  RATER: "Rater",
  CRITERION: "Criterion",
  KIND: "Kind",
};

const CHECKS: Record<Robustness["checks"][number]["of"], { what: string; unit: string }> = {
  PLACE_ON_SHEET: { what: "Position of an answer on the sheet", unit: "a position later" },
  LENGTH: { what: "Length of an answer", unit: "twice as long" },
  HOUR: { what: "Time of day", unit: "an hour later" },
};

/**
 * What the outcome would be without one thing, under other weights, and what else moved grades. An outcome by kind is not tried
 * so: the server leaves out and weighs anew over all kinds.
 */
export function HangsOn({ overall }: { overall: boolean }) {
  const robustness = useRobustness();
  return (
    <section className="mt-8">
      <h2>What it hangs on</h2>
      <Query of={robustness} what="what the outcome hangs on">
        {(r) => (
          <>
            {overall ? (
              <>
                {r.sentence !== "" && <p className="mt-1 max-w-3xl">{r.sentence}</p>}
                <Without robustness={r} />
                <Along robustness={r} />
              </>
            ) : (
              <p className="mt-1">What is left out one by one is only tried for what holds over all kinds.</p>
            )}
            <Checks robustness={r} />
            {r.guesses && (
              <p className="mt-3 max-w-3xl">
                Who wrote it was guessed right {r.guesses.hits} of {r.guesses.tries} times; {percent(r.guesses.chance)}{" "}
                would be right by chance, and as many or more with a probability of {fixed(r.guesses.p.value ?? 1, 3)}.
              </p>
            )}
          </>
        )}
      </Query>
    </section>
  );
}

function Without({ robustness }: { robustness: Robustness }) {
  const changing = robustness.without.filter((w) => w.changes);
  if (changing.length === 0) {
    return null;
  }
  return (
    <Table
      caption="Left out, it would be another outcome"
      rows={changing}
      rowKey={(w) => `${w.factor} ${w.name}`}
      columns={[
        { key: "name", head: "Without", rowHeader: true, sortBy: (w) => w.name, cell: (w) => w.name },
        { key: "factor", head: "What that is", sortBy: (w) => w.factor, cell: (w) => FACTORS[w.factor] },
        { key: "says", head: "Then", sortBy: (w) => w.says, cell: (w) => w.says },
      ]}
    />
  );
}

/** Each criterion's weight from nothing to all, as stretches that say the same. */
function Along({ robustness }: { robustness: Robustness }) {
  if (robustness.along.length === 0) {
    return null;
  }
  return (
    <>
      <h3 className="mt-5">As one criterion weighs more or less</h3>
      <ul className="mt-1 grid max-w-3xl gap-1">
        {robustness.along.map((a) => (
          <li key={a.criterion}>
            <b>{a.criterion}</b>: {stretches(a.points).join("; ")}.
          </li>
        ))}
      </ul>
    </>
  );
}

function stretches(points: Robustness["along"][number]["points"]): string[] {
  const found: { from: number; to: number; says: string }[] = [];
  for (const p of points) {
    const last = found.at(-1);
    if (last !== undefined && last.says === p.says) {
      last.to = p.weight;
    } else {
      found.push({ from: p.weight, to: p.weight, says: p.says });
    }
  }
  return found.map((s) => `${percent(s.from)} to ${percent(s.to)} ${s.says}`);
}

function Checks({ robustness }: { robustness: Robustness }) {
  return (
    <>
      <h3 className="mt-5">Whether anything beside the answers moved grades</h3>
      <Table
        caption="What may have moved grades"
        rows={robustness.checks}
        rowKey={(c) => c.of}
        columns={[
          { key: "of", head: "What", rowHeader: true, cell: (c) => CHECKS[c.of].what },
          { key: "slope", head: "Points, interval", cell: (c) => <FigureText figure={c.slope} decimals={2} /> },
          { key: "unit", head: "For", cell: (c) => CHECKS[c.of].unit },
        ]}
      />
      <p className="mt-1 text-sm text-ink-soft">
        Place and hour against other raters of the same answer, length against other answers of the same candidate.
        Nothing is adjusted for it.
      </p>
    </>
  );
}
