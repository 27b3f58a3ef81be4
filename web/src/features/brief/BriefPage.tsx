import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Area } from "../../ui/Field";
import { moment } from "../../ui/format";
import { Markdown } from "../../ui/Markdown";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { rubricOfStudy } from "../rubric";
import { ExpectationForm, Reopenings, RuleTermsList, useStudy } from "../study";
import { briefOfStudy, useReopenBrief } from "./api";
import { BriefEditor } from "./BriefEditor";
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
  return (
    <div className="max-w-5xl">
      <BriefEditor brief={brief} />
      <Planner rule={brief.brief.rule} />
      {brief.brief.asksExpectations && (
        <section className="mt-10 border-t border-rule pt-5">
          <h2>What you expect</h2>
          <p className="mt-1 mb-3 max-w-2xl text-ink-soft">
            Asked of everybody before they see anything, and shown only with the recommendation.
          </p>
          <ExpectationForm studyId={study.id} />
        </section>
      )}
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
      <Reopenings reopenings={brief.reopenings} />
      {mayWrite && (
        <p className="mt-8 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <a href={`/api/studies/${study.id}/archive`} download>
            Write the study out as an archive
          </a>
          {brief.closedAt !== undefined && <Reopen studyId={study.id} />}
        </p>
      )}
    </article>
  );
}

function Reopen({ studyId }: { studyId: string }) {
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const reopen = useReopenBrief(studyId);
  return (
    <>
      <Button onClick={() => setAsking(true)}>Reopen the brief …</Button>
      <Dialog title="Reopen the brief?" open={asking} onOpenChange={setAsking}>
        <p>
          The reason, and what the rule said until now, stay on record and are shown with the recommendation. While the
          brief is open, nothing is recommended.
        </p>
        <Area
          label="Reason"
          className="mt-3"
          maxLength={LIMITS.ReopenBrief.reason}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          error={reopen.error?.message}
        />
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={() => setAsking(false)}>Leave it closed</Button>
          <Button
            tone="danger"
            disabled={reason.trim() === "" || reopen.isPending}
            onClick={() => reopen.mutate(reason, { onSuccess: () => setAsking(false) })}
          >
            Reopen it
          </Button>
        </div>
        {reopen.isError && <Note tone="trouble">{reopen.error.message}</Note>}
      </Dialog>
    </>
  );
}
