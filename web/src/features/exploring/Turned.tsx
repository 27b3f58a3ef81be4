import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Dial } from "../../ui/Dial";
import { Choice, NumberField, Tick } from "../../ui/Field";
import { fixed, percent } from "../../ui/format";
import { UseFields } from "../cost";
import type { Explored, Part, useExplored } from "./address";

export type Names = Record<Part, { id: string; name: string }[]>;

type Turn = Omit<ReturnType<typeof useExplored>, "explored" | "untouched">;

type TurnedProps = {
  report: Schemas["RecommendationReport"];
  names: Names;
  explored: Explored;
  turn: Turn;
};

const LABELS: Record<Part, { label: string; pick: string }> = {
  rater: { label: "Without a rater", pick: "nobody left out" },
  prompt: { label: "Without a prompt", pick: "no prompt left out" },
  kind: { label: "Without a kind", pick: "no kind left out" },
};

const PARTS: Part[] = ["rater", "prompt", "kind"];

/** What is turned away from the rule. */
export function Turned({ report, names, explored, turn }: TurnedProps) {
  return (
    <>
      <Weights report={report} explored={explored} turn={turn} />
      <NumberField
        label="Points from which a difference matters"
        hint={`The rule has ${fixed(report.rule.terms.margin, 1)}.`}
        className="mt-4 max-w-60"
        value={explored.margin ?? report.rule.terms.margin}
        onNumber={(margin) =>
          margin !== undefined && margin >= 0 && margin <= 100 && turn.setMargin(margin, report.rule.terms.margin)
        }
      />
      <div className="mt-2 grid gap-3">
        {PARTS.filter((part) => part !== "kind" || names.kind.length > 1).map((part) => (
          <LeftOut key={part} part={part} all={names[part]} out={explored.without[part]} turn={turn} />
        ))}
      </div>
      <TeamsUse use={explored.use} turn={turn} />
    </>
  );
}

const TEN_A_DAY = { people: 10, tasksPerDay: 10, daysPerMonth: 21 };

/** A month of it in the place of a prompt’s cost. */
function TeamsUse({ use, turn }: { use: Explored["use"]; turn: Turn }) {
  return (
    <div className="mt-4">
      <Tick
        checked={use !== undefined}
        label="A month of the team’s use"
        hint="Where the rule breaks ties by cost, a month counts in the place of a prompt."
        onTick={(ticked) => turn.setUse(ticked ? TEN_A_DAY : undefined)}
      />
      {use !== undefined && (
        <div className="mt-2">
          <UseFields use={use} onUse={turn.setUse} />
        </div>
      )}
    </div>
  );
}

/** Weights as shares of all, in steps of a hundredth of what the rule gives in all. */
function Weights({ report, explored, turn }: Omit<TurnedProps, "names">) {
  const { weights } = report.rule;
  const all = weights.reduce((sum, w) => sum + w.weight, 0);
  const now = weights.map((w) => explored.weights[w.key] ?? w.weight);
  const total = now.reduce((sum, w) => sum + w, 0);
  return (
    <fieldset>
      <legend className="font-medium">Weights</legend>
      <div className="mt-1 grid gap-1">
        {weights.map((w, i) => (
          <div key={w.key}>
            <Dial
              label={w.name}
              value={Math.round((100 * (now[i] ?? 0)) / all)}
              from={0}
              to={100}
              onValue={(share) => turn.weigh(w.key, Math.round(share * all * 100) / 10_000, w.weight)}
            />
            <p className="text-sm text-ink-soft">
              {total === 0 ? "nothing has weight" : `${percent((now[i] ?? 0) / total)} of the score`}
              {now[i] !== w.weight && `; the rule has ${percent(w.weight / all)}`}
            </p>
          </div>
        ))}
      </div>
    </fieldset>
  );
}

type LeftOutProps = { part: Part; all: Names[Part]; out: string[]; turn: Turn };

function LeftOut({ part, all, out, turn }: LeftOutProps) {
  const { label, pick } = LABELS[part];
  return (
    <div>
      <Choice
        label={label}
        value=""
        options={[
          { value: "", label: out.length === 0 ? pick : "leave out one more" },
          ...all.filter((one) => !out.includes(one.id)).map((one) => ({ value: one.id, label: one.name })),
        ]}
        onValue={(id) => id !== "" && turn.leaveOut(part, id)}
      />
      <ul className="mt-1 flex flex-wrap gap-2">
        {all
          .filter((one) => out.includes(one.id))
          .map((one) => (
            <li key={one.id}>
              <Button className="max-w-full" onClick={() => turn.takeBack(part, one.id)}>
                <span className="sr-only">Take back </span>
                <span className="truncate">{one.name}</span>
                <span aria-hidden="true">×</span>
              </Button>
            </li>
          ))}
      </ul>
    </div>
  );
}
