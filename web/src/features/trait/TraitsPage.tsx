import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { count } from "../../ui/format";
import { Query, WORKED_OUT } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { HiddenStandings, Views } from "../recommendation";
import { useStudy } from "../study";
import { traitsOfStudy } from "./api";
import { PointsTable, TraitTable } from "./TraitTable";

type Report = Schemas["TraitReport"];

/** What candidates are good and bad at, by what raters said beside levels. */
export function TraitsPage() {
  const study = useStudy();
  const hidden = study.stage === "GRADING";
  const traits = useQuery({ ...traitsOfStudy(study.id), enabled: !hidden });
  useTitle(`Good at, bad at · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>Good at, bad at</h1>
      <p className="mt-1 max-w-3xl text-ink-soft">
        What raters gave credit for and found fault with, by answer: one that several said the same of counts once. It
        decides nothing.
      </p>
      <Query of={traits} what="what raters said" long={WORKED_OUT}>
        {(report) => <Parts report={report} />}
      </Query>
    </>
  );
}

function Parts({ report }: { report: Report }) {
  const [address, setAddress] = useSearchParams();
  const kindId = address.get("kind") ?? undefined;
  const part = report.parts.find((p) => p.kindId === kindId) ?? report.parts[0];
  if (part === undefined) {
    return null;
  }
  return (
    <>
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
      <Part report={report} part={part} />
    </>
  );
}

function Part({ report, part }: { report: Report; part: Report["parts"][number] }) {
  if (part.rows.length === 0 && part.points.length === 0) {
    return <p className="mt-4">Raters named no trait in their remarks, and no prompt has key points.</p>;
  }
  return (
    <>
      <ul className="mt-4 grid max-w-4xl gap-1.5 font-serif">
        {part.sentences.map((sentence) => (
          <li key={sentence} className="[overflow-wrap:anywhere]">
            {sentence}
          </li>
        ))}
      </ul>
      {part.rows.length > 0 && (
        <section className="mt-6">
          <h2 className="mb-1">Traits</h2>
          <TraitTable report={report} part={part} />
          {part.more > 0 && (
            <p className="mt-1 text-sm text-ink-soft">
              {count(part.more, "trait", "traits")} more, said more seldom, {part.more === 1 ? "is" : "are"} left out.
            </p>
          )}
        </section>
      )}
      {part.points.length > 0 && (
        <section className="mt-6 max-w-3xl">
          <h2 className="mb-1">Key points</h2>
          <PointsTable report={report} part={part} />
        </section>
      )}
    </>
  );
}
