import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { Query, WORKED_OUT } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { HiddenStandings, Views } from "../recommendation";
import { useStudy } from "../study";
import { evidenceOf, gradedEvidenceOf, WorksTable } from "../evidence";
import { Contradictions } from "./Contradictions";
import { SeenByRaters } from "./SeenByRaters";
import { TrialTable } from "./TrialTable";

/** What trials say, prompt by prompt and by candidate, and where raters say otherwise. */
export function EvidencePage() {
  const study = useStudy();
  const hidden = study.stage === "GRADING";
  const evidence = useQuery({ ...evidenceOf(study.id), enabled: !hidden });
  useTitle(`Trials · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>Trials</h1>
      <p className="mt-1 max-w-3xl text-ink-soft">
        What came of building, running and testing answers’ code. It decides nothing by itself: levels do.
      </p>
      <Query of={evidence} what="what works by trial" long={WORKED_OUT}>
        {(report) =>
          report.answers.every((a) => a.standing === "NOT_TRIED") ? (
            <p className="mt-4">No answer’s code was tried.</p>
          ) : (
            <Shown report={report} />
          )
        }
      </Query>
    </>
  );
}

function Shown({ report }: { report: Schemas["EvidenceReport"] }) {
  const study = useStudy();
  const graded = useQuery({ ...gradedEvidenceOf(study.id), enabled: study.stage === "CLOSED" });
  const [address, setAddress] = useSearchParams();
  const part = report.parts.find((p) => p.kindId === (address.get("kind") ?? undefined)) ?? report.parts[0];
  return (
    <div className="max-w-5xl">
      {report.parts.length > 1 && (
        <Choice
          label="Kind"
          className="mt-3 w-52"
          value={part?.kindId ?? ""}
          options={report.parts.map((p) => ({
            value: p.kindId ?? "",
            label: p.kindId === undefined ? "all kinds" : p.kind,
          }))}
          onValue={(kind) => setAddress(kind === "" ? {} : { kind }, { replace: true, preventScrollReset: true })}
        />
      )}
      {part && (
        <section className="mt-4">
          <h2 className="mb-1">What works</h2>
          <WorksTable report={report} part={part} />
        </section>
      )}
      <section className="mt-7">
        <h2 className="mb-1">Prompt by prompt</h2>
        <TrialTable report={report} kind={part?.kind ?? ""} />
      </section>
      {study.stage === "CLOSED" && (
        <Query of={graded} what="what raters said" long={WORKED_OUT}>
          {(found) => (
            <>
              <Contradictions report={report} graded={found} />
              <SeenByRaters graded={found} />
            </>
          )}
        </Query>
      )}
    </div>
  );
}
