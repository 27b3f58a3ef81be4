import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { fixed, money } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Failure, Query, WORKED_OUT } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { promptTitles } from "../prompt";
import { peopleOfStudy, useStudy } from "../study";
import { whatIfOf } from "./api";
import { HiddenStandings, StandingTable, useReport, Views } from "../recommendation";
import { askedOf, useExplored } from "./address";
import { KeepInMemo } from "./KeepInMemo";
import { type Names, Turned } from "./Turned";

type Report = Schemas["RecommendationReport"];

/** What the rule would say with other weights, another margin, or without some of what was graded. */
export function WhatIfPage() {
  const study = useStudy();
  const { hidden, query } = useReport();
  const titles = useQuery({ ...promptTitles(study.id), enabled: !hidden });
  const people = useQuery({ ...peopleOfStudy(study.id), enabled: !hidden });
  useTitle(`What if · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>What if</h1>
      <p className="mt-1 mb-4 max-w-3xl text-ink-soft">
        Exploring changes neither the rule nor the recommendation. Agreement, and how many raters an answer has, stay
        those of the whole study.
      </p>
      <Query of={query} what="the recommendation" long={WORKED_OUT}>
        {(report) => (
          <Query of={titles} what="the prompts">
            {(prompts) => (
              <Query of={people} what="the people">
                {(all) => <Exploring report={report} names={namesOf(prompts, all)} />}
              </Query>
            )}
          </Query>
        )}
      </Query>
    </>
  );
}

function namesOf(prompts: Schemas["PromptTitle"][], people: Schemas["PersonView"][]): Names {
  const sound = prompts.filter((p) => !p.faulty);
  const kinds = new Map(sound.map((p) => [p.kind.id, p.kind.name]));
  return {
    rater: people.filter((p) => p.grades).map((p) => ({ id: p.accountId, name: p.name })),
    prompt: sound.map((p) => ({ id: p.id, name: p.title })),
    kind: [...kinds].map(([id, name]) => ({ id, name })),
  };
}

function Exploring({ report, names }: { report: Report; names: Names }) {
  const study = useStudy();
  const { explored, untouched, ...turn } = useExplored();
  const asked = askedOf(explored, report.rule);
  const found = useQuery({ ...whatIfOf(study.id, report.revision, asked), placeholderData: keepPreviousData });
  return (
    <div className="grid gap-x-7 gap-y-6 xl:grid-cols-[minmax(0,19rem)_minmax(0,1fr)]">
      <section aria-label="What is asked about">
        <Turned report={report} names={names} explored={explored} turn={turn} />
        <Button className="mt-5" disabled={untouched} onClick={turn.startAgain}>
          As the rule has it
        </Button>
      </section>
      <section aria-label="What would be said" aria-busy={found.isFetching}>
        {found.data === undefined ? (
          <Query of={found} what="what would be said" long={WORKED_OUT}>
            {() => null}
          </Query>
        ) : (
          <>
            <Said report={report} found={found.data} untouched={untouched} stale={found.isPlaceholderData} />
            {found.isError && <Failure error={found.error} what="what would be said now" />}
            {!untouched && <KeepInMemo rule={report.rule} names={names} explored={explored} found={found.data} />}
          </>
        )}
      </section>
    </div>
  );
}

type SaidProps = { report: Report; found: Schemas["WhatIfView"]; untouched: boolean; stale: boolean };

function Said({ report, found, untouched, stale }: SaidProps) {
  return (
    <div className={classes(stale && "opacity-60")}>
      <Note tone={untouched ? "info" : found.same ? "good" : "caution"} role="status">
        <p className="text-sm">
          {untouched ? "As the rule has it" : found.same ? "Exploring: as much as the rule says" : "Exploring"}
        </p>
        <p className="font-serif text-lg [overflow-wrap:anywhere]">{found.headline}</p>
        {!untouched && !found.same && <p className="mt-1">The rule says: {found.rule}</p>}
      </Note>
      <h2 className="mt-5 text-base">Standings {untouched ? "" : "as explored"}</h2>
      <StandingTable
        caption="Standings as explored"
        report={{ ...report, field: found.field }}
        standings={found.overall}
        overall="compared"
      />
      <Months report={report} months={found.months} />
      <details className="mt-3">
        <summary className="text-tarn underline underline-offset-4">Why</summary>
        <ul className="mt-1 grid gap-1">
          {found.findings.map((finding) => (
            <li key={finding.sentence}>{finding.sentence}</li>
          ))}
        </ul>
      </details>
    </div>
  );
}

/** What a month would cost those whom the rule may recommend. */
function Months({ report, months }: { report: Report; months: SaidProps["found"]["months"] }) {
  if (months.length === 0) {
    return null;
  }
  const decides = report.rule.terms.tieBreak === "COST";
  return (
    <p className="mt-2">
      A month costs{" "}
      {months
        .map(
          (m) =>
            `${money(m.monthly, m.currency)} with ${report.candidates.find((c) => c.id === m.candidateId)?.name ?? ""}` +
            (m.stopped > 0 ? `, whose plan stops ${fixed(m.stopped, 0)} tasks` : ""),
        )
        .join("; ")}
      . {decides ? "The rule breaks ties by cost." : "The rule does not break ties by cost, so this moves nothing."}
    </p>
  );
}
