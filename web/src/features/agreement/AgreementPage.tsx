import { queryOptions, useQuery } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { count } from "../../ui/format";
import { Query, WORKED_OUT } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { TrialsNote } from "../evidence";
import { SetAsideNote, studyKeys, useStudy } from "../study";
import { AlphaSection, decisiveFigure } from "./AlphaSection";
import { PairTable } from "./PairTable";
import { SelfSection } from "./SelfSection";
import { SeveritySection } from "./SeveritySection";
import { SplitSection } from "./SplitSection";
import { useFilter } from "./useFilter";
import { WhatHelps } from "./WhatHelps";
import { Workbench } from "./workbench/Workbench";

type Report = Schemas["AgreementReport"];

const agreementOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "agreement"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/agreement", { params: { path: { studyId } }, signal })),
  });

export function AgreementPage() {
  const study = useStudy();
  const agreement = useQuery(agreementOfStudy(study.id));
  useTitle(`Agreement · ${study.title}`);
  return (
    <Query of={agreement} what="the agreement" long={WORKED_OUT}>
      {(report) => <Figures report={report} />}
    </Query>
  );
}

/** For the lead a workbench, with the same numbers as tables beneath; for a rater the tables, with their own place. */
function Figures({ report }: { report: Report }) {
  const leads = useStudy().role === "LEAD";
  const nearest = nearestToItsFloor(report);
  const { filter } = useFilter();
  const criterion = report.criteria.find((c) => c.criterionId === filter.criterion) ?? nearest ?? report.criteria[0];
  return (
    <>
      <h1 className="max-w-none text-xl leading-snug">{headline(report)}</h1>
      <p className="mt-0.5 text-sm text-ink-soft">
        From {report.sentSheets} of {count(report.sheets, "sheet", "sheets")}; sheets count once they are sent in.
      </p>
      <TrialsNote />
      {leads && <WhatHelps report={report} on={nearest} />}
      <SetAsideNote setAside={report.setAside} />
      {leads && criterion && report.sentSheets > 0 && <Workbench report={report} criterion={criterion} />}
      <div className="max-w-5xl">
        <AlphaSection report={report} />
        <SeveritySection report={report} />
        <PairTable report={report} criterion={criterion} />
        <SelfSection report={report} />
        <SplitSection report={report} criterion={criterion} />
      </div>
    </>
  );
}

function namesOf(criteria: Report["criteria"]): string {
  return criteria.map((c) => c.name.toLowerCase()).join(" and ");
}

/** The first thing to know, in words. */
function headline(report: Report): string {
  const weighty = report.criteria.filter((c) => c.weight > 0);
  const decisive = (c: Report["criteria"][number]) => decisiveFigure(report, c.overall).value;
  const below = weighty.filter((c) => (decisive(c) ?? Infinity) < c.floor);
  if (weighty.some((c) => decisive(c) === undefined)) {
    return "Agreement cannot be computed yet";
  }
  if (below.length > 0) {
    return `Raters do not agree well enough on ${namesOf(below)}`;
  }
  const uncertain = weighty.filter((c) => c.overall.verdict === "UNCERTAIN");
  return uncertain.length === 0
    ? "Raters agree well on every criterion"
    : `Agreement reaches the floor on every criterion; on ${namesOf(uncertain)} its interval also reaches below`;
}

/** Of those with weight. */
function nearestToItsFloor(report: Report): Report["criteria"][number] | undefined {
  const above = (c: Report["criteria"][number]) => (decisiveFigure(report, c.overall).value ?? Infinity) - c.floor;
  return report.criteria.filter((c) => c.weight > 0 && above(c) < Infinity).sort((a, b) => above(a) - above(b))[0];
}
