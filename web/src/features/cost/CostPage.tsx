import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Choice, Tick } from "../../ui/Field";
import { count, fixed, moment } from "../../ui/format";
import { Query, WORKED_OUT } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { useTitle } from "../../ui/useTitle";
import { HiddenStandings, Views } from "../recommendation";
import { useStudy } from "../study";
import { costsOfStudy, teamCostsOf, useStateUse } from "./api";
import { MonthTable, TakenTable } from "./CostTables";
import { AGAINST, type Against, drawnOf } from "./measures";
import { Scatter } from "./Scatter";
import { UseFields, withUse, addressedUse } from "./use";

type Report = Schemas["CostReport"];
type Team = Schemas["TeamCostReport"];

/** Quality against what it takes: in money, in time, and in a month of the team’s use. */
export function CostPage() {
  const study = useStudy();
  const hidden = study.stage === "GRADING";
  const [address] = useSearchParams();
  const costs = useQuery({ ...costsOfStudy(study.id), enabled: !hidden });
  const team = useQuery({ ...teamCostsOf(study.id, addressedUse(address)), enabled: !hidden });
  useTitle(`Cost and time · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>Cost and time</h1>
      <Query of={costs} what="what answers took" long={WORKED_OUT}>
        {(report) => (
          <div className="max-w-5xl">
            <Pictured report={report} team={team.data} />
            <section className="mt-6">
              <h2 className="mb-1">What answers took</h2>
              <TakenTable report={report} />
              <HowCounted report={report} />
            </section>
            <section className="mt-7">
              <h2>A month for the team</h2>
              <Query of={team} what="what a month would cost">
                {(found) => <Month team={found} />}
              </Query>
            </section>
          </div>
        )}
      </Query>
    </>
  );
}

function Pictured({ report, team }: { report: Report; team: Team | undefined }) {
  const [address, setAddress] = useSearchParams();
  const against = AGAINST.find((a) => a.value === address.get("against"))?.value ?? "cost";
  const each = address.get("prompts") === "each";
  const set = (name: string, value: string | undefined) => {
    const next = new URLSearchParams(address);
    if (value === undefined) {
      next.delete(name);
    } else {
      next.set(name, value);
    }
    setAddress(next, { replace: true, preventScrollReset: true });
  };
  const drawn = drawnOf(report, against, team);
  const byPrompt = against === "cost" || against === "time";
  return (
    <>
      <div className="mt-1 mb-2 flex flex-wrap items-end gap-x-6 gap-y-2">
        <Choice<Against>
          label="Score against"
          className="w-72"
          value={against}
          options={AGAINST}
          onValue={(value) => set("against", value)}
        />
        {byPrompt && (
          <Tick
            checked={each}
            label="Each prompt as a small mark"
            onTick={(ticked) => set("prompts", ticked ? "each" : undefined)}
          />
        )}
      </div>
      {drawn.marks.length === 0 ? (
        <p>
          There is nothing to draw:{" "}
          {against === "month"
            ? "no price is known, or prices are in different currencies"
            : (report.why ?? "it was not measured")}
          .
        </p>
      ) : (
        <Scatter drawn={drawn} dots={each && byPrompt ? dotsOf(report, against) : []} rows={report.rows} />
      )}
      <InWords drawn={drawn} more={each && byPrompt ? report.more : 0} />
    </>
  );
}

function dotsOf(report: Report, against: Against) {
  return report.dots.flatMap((d) => {
    const taken = against === "time" ? d.ms : d.cost;
    return taken === undefined ? [] : [{ candidateId: d.candidateId, taken, score: d.score }];
  });
}

function InWords({ drawn, more }: { drawn: ReturnType<typeof drawnOf>; more: number }) {
  const front = drawn.marks.filter((m) => m.front).map((m) => m.name);
  return (
    <p className="mt-1 max-w-3xl text-sm text-ink-soft">
      {front.length > 0 &&
        `The dashed line: nobody else is at least as good as ${front.join(", ")} and takes no more. `}
      Lines are 95 % intervals.
      {drawn.left.length > 0 && ` Not drawn, as a figure is missing: ${drawn.left.join(", ")}.`}
      {more > 0 && ` ${count(more, "more small mark is", "more small marks are")} left out.`}
    </p>
  );
}

function HowCounted({ report }: { report: Report }) {
  return (
    <p className="mt-1 max-w-3xl text-sm text-ink-soft">
      Means are over the {count(report.prompts, "prompt", "prompts")} that all candidates answered, follow-ups and
      failed answers included. An answer works if most of the raters who tried it say that it does as it is; one that
      works is paid for with all those that do not.{" "}
      {report.why !== undefined && `Costs cannot be compared: ${report.why}. `}
      People’s own answers are not priced.
    </p>
  );
}

function Month({ team }: { team: Team }) {
  const [address, setAddress] = useSearchParams();
  const set = (use: Team["use"] | undefined) =>
    setAddress(withUse(address, use), { replace: true, preventScrollReset: true });
  return (
    <>
      <p className="mb-2 max-w-3xl text-ink-soft">
        A task is taken to take what a prompt of the study did, and to be spread evenly over days. It decides nothing.
      </p>
      <UseFields use={team.use} onUse={set} />
      <Stated team={team} onStated={() => set(undefined)} asked={addressedUse(address) !== undefined} />
      <p className="mt-2 mb-1">{fixed(team.tasks, 0)} tasks a month.</p>
      <MonthTable team={team} />
    </>
  );
}

type StatedProps = { team: Team; asked: boolean; onStated: () => void };

/** Whether this is the use that the study keeps, and what can be done about it. */
function Stated({ team, asked, onStated }: StatedProps) {
  const study = useStudy();
  const state = useStateUse(study.id);
  const { stated } = team;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-sm">
      <span>
        {stated === undefined
          ? "No use is stated for the study."
          : `${asked ? "The study has another stated" : "As stated"} by ${stated.by}, ${moment(stated.at)}.`}
      </span>
      {study.role === "LEAD" && (asked || stated === undefined) && (
        <Button disabled={state.isPending} onClick={() => state.mutate(team.use, { onSuccess: onStated })}>
          State this use; the memo prices it
        </Button>
      )}
      {asked && stated !== undefined && <Button onClick={onStated}>Back to the stated use</Button>}
      {study.role === "LEAD" && !asked && stated !== undefined && (
        <Button disabled={state.isPending} onClick={() => state.mutate(null)}>
          Take it back
        </Button>
      )}
      <Trouble error={state.error} />
    </div>
  );
}
