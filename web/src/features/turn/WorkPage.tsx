import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { count } from "../../ui/format";
import { Query, WORKED_OUT } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { HiddenStandings, Views } from "../recommendation";
import { useStudy } from "../study";
import { WorksByTrial } from "../evidence";
import { workOfStudy } from "./api";
import { CoursesTable, TurnsTable, WorksTable } from "./WorkTables";

type Report = Schemas["WorkReport"];

/** How much works, after how many follow-ups, and what each of them mended or broke. */
export function WorkPage() {
  const study = useStudy();
  const hidden = study.stage === "GRADING";
  const work = useQuery({ ...workOfStudy(study.id), enabled: !hidden });
  useTitle(`Does it work · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>Does it work</h1>
      <p className="mt-1 max-w-3xl text-ink-soft">
        An answer is what most of the raters say who tried it. It decides nothing by itself: levels do.
      </p>
      <Query of={work} what="what works" long={WORKED_OUT}>
        {(report) => <Parts report={report} />}
      </Query>
    </>
  );
}

function Parts({ report }: { report: Report }) {
  const [address, setAddress] = useSearchParams();
  const part = report.parts.find((p) => p.kindId === (address.get("kind") ?? undefined)) ?? report.parts[0];
  if (part === undefined) {
    return null;
  }
  const looked = part.rows.some((r) => r.turns.toWork.length > 0 || r.turns.never > 0);
  return (
    <div className="max-w-5xl">
      {report.parts.length > 1 && (
        <Choice
          label="Kind"
          className="mt-3 w-52"
          value={part.kindId ?? ""}
          options={report.parts.map((p) => ({
            value: p.kindId ?? "",
            label: p.kindId === undefined ? "all kinds" : p.kind,
          }))}
          onValue={(kind) => setAddress(kind === "" ? {} : { kind }, { replace: true, preventScrollReset: true })}
        />
      )}
      <section className="mt-4">
        <h2 className="mb-1">By raters’ word</h2>
        <WorksTable report={report} part={part} />
      </section>
      <WorksByTrial kindId={part.kindId} />
      <section className="mt-7">
        <h2 className="mb-1">After how many follow-ups</h2>
        {looked ? (
          <TurnsTable report={report} part={part} />
        ) : (
          <p>Nobody said of replies whether they do what was asked.</p>
        )}
      </section>
      {report.courses.length > 0 && (
        <section className="mt-7">
          <h2 className="mb-1">From turn to turn</h2>
          <CoursesTable report={report} />
          {report.more > 0 && (
            <p className="mt-1 text-sm text-ink-soft">{count(report.more, "answer is", "answers are")} left out.</p>
          )}
        </section>
      )}
    </div>
  );
}
