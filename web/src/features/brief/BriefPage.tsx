import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { at } from "../../api/base";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { moment } from "../../ui/format";
import { Markdown } from "../../ui/Markdown";
import { Query } from "../../ui/Query";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { useTitle } from "../../ui/useTitle";
import { candidatesOfStudy } from "../candidate";
import { ClaimsPart } from "../expected";
import { rubricOfStudy } from "../rubric";
import { ExpectationForm, ForecastWords, Reopenings, RuleTermsList, useStudy } from "../study";
import { briefOfStudy, useReopenBrief } from "./api";
import { BriefEditor } from "./BriefEditor";
import { usePlan } from "./plan";
import { Planner } from "./Planner";

export function BriefPage() {
  const study = useStudy();
  const brief = useQuery(briefOfStudy(study.id));
  useTitle(`Brief · ${study.title}`);
  const mayWrite = study.role === "LEAD" && !study.blind;
  return (
    <Query of={brief} what="the brief">
      {(b) =>
        b.closedAt === undefined && mayWrite ? (
          <OpenBrief key={study.id} brief={b} />
        ) : (
          <ClosedBrief brief={b} mayWrite={mayWrite} />
        )
      }
    </Query>
  );
}

function OpenBrief({ brief }: { brief: Schemas["BriefView"] }) {
  const study = useStudy();
  const { pending, plan, change } = usePlan(study.id);
  const names = useQuery(candidatesOfStudy(study.id));
  return (
    <div className="max-w-5xl">
      <BriefEditor brief={brief} plan={plan} />
      {!pending && <Planner rule={brief.brief.rule} plan={plan} onChange={change} />}
      {brief.brief.asksExpectations && (
        <section className="mt-10 border-t border-rule pt-5">
          <h2>What you expect</h2>
          <p className="mt-1 mb-3 max-w-2xl text-ink-soft">
            Asked of everybody before they see anything, and shown only with the recommendation.
          </p>
          <ExpectationForm studyId={study.id} names={names.data?.map((c) => c.content.name) ?? []} />
        </section>
      )}
      <ClaimsPart />
    </div>
  );
}

function ClosedBrief({ brief, mayWrite }: { brief: Schemas["BriefView"]; mayWrite: boolean }) {
  const study = useStudy();
  const rubric = useQuery(rubricOfStudy(study.id));
  const b = brief.brief;
  return (
    <article className="max-w-3xl">
      <p className="text-sm text-ink-soft">
        {brief.closedAt ? `Brief, closed ${moment(brief.closedAt)}` : "Brief, being written"}
      </p>
      <h1 className="mt-1">{b.question || "No question is written yet"}</h1>
      <p className="mt-3">
        <strong>For whom.</strong> {b.audience || "Not said yet."}
      </p>
      {b.background && <Markdown text={b.background} below="page" className="mt-3 font-serif leading-relaxed" />}
      <h2 className="mt-8 mb-3">The decision rule</h2>
      <RuleTermsList terms={b.rule} weights={rubric.data?.criteria ?? []} />
      {brief.forecast && <ForecastWords forecast={brief.forecast} />}
      <Reopenings reopenings={brief.reopenings} />
      {mayWrite && study.stage === "PREPARING" && <ClaimsPart />}
      {mayWrite && (
        <p className="mt-8 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <a href={at(`/api/studies/${study.id}/archive`)} download>
            Write the study out as an archive
          </a>
          {brief.closedAt !== undefined && study.stage !== "CLOSED" && <Reopen studyId={study.id} />}
        </p>
      )}
    </article>
  );
}

function Reopen({ studyId }: { studyId: string }) {
  const [asking, setAsking] = useState(false);
  const reopen = useReopenBrief(studyId);
  return (
    <>
      <Button onClick={() => setAsking(true)}>Reopen the brief …</Button>
      {asking && (
        <ReasonDialog
          title="Reopen the brief?"
          label="Reason"
          maxLength={LIMITS.ReopenBrief.reason}
          action="Reopen it"
          busy={reopen.isPending}
          error={reopen.error?.message}
          onReason={(reason) => reopen.mutate(reason, { onSuccess: () => setAsking(false) })}
          onClose={() => setAsking(false)}
        >
          <p>
            The reason, and what the rule said until now, stay on record and are shown with the recommendation. While
            the brief is open, nothing is recommended.
          </p>
        </ReasonDialog>
      )}
    </>
  );
}
