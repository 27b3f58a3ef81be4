import { useQueries } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { count, moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Failure } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { InvitationList } from "../account";
import { promptTitles } from "../prompt";
import { useStudy } from "../study";
import { gradingOfStudy, useCloseRound, useInvite } from "./api";
import { RoundPlan } from "./RoundPlan";

type Progress = Schemas["GradingProgress"];
type Rater = Progress["raters"][number];

export function GradingPage() {
  const study = useStudy();
  const [grading, prompts] = useQueries({ queries: [gradingOfStudy(study.id), promptTitles(study.id)] });
  useTitle(`Grading · ${study.title}`);
  const failed = grading.error ?? prompts.error;
  if (failed) {
    return <Failure error={failed} what="the progress" onRetry={() => void grading.refetch()} />;
  }
  if (!grading.data || !prompts.data) {
    return <p role="status">Fetching the progress …</p>;
  }
  return grading.data.openedAt === undefined ? (
    <RoundPlan />
  ) : (
    <RoundProgress grading={grading.data} openedAt={grading.data.openedAt} prompts={prompts.data} />
  );
}

type RoundProgressProps = { grading: Progress; openedAt: string; prompts: Schemas["PromptTitle"][] };

function RoundProgress({ grading, openedAt, prompts }: RoundProgressProps) {
  const study = useStudy();
  const setAside = new Set(prompts.filter((p) => p.faulty).map((p) => p.id));
  const sheets = grading.raters.flatMap((r) => r.sheets).filter((s) => !setAside.has(s.promptId));
  const left = sheets.filter((s) => !s.sentAt).length;
  const lead = study.role === "LEAD";
  return (
    <div className="max-w-5xl">
      <h1>Grading</h1>
      <p className="mt-1 mb-5 text-ink-soft">
        {sheets.length - left} of {count(sheets.length, "sheet", "sheets")} are sent in. The round opened{" "}
        {moment(openedAt)}
        {grading.closedAt ? ` and was closed ${moment(grading.closedAt)}.` : "."}
        {setAside.size > 0 &&
          ` ${count(setAside.size, "prompt is", "prompts are")} set aside and ${setAside.size === 1 ? "counts" : "count"} nowhere.`}
      </p>
      {study.blind && (
        <Note tone="info" className="mb-5">
          You grade in this round: names, measures, answers and results are hidden from you until it is closed.
        </Note>
      )}
      <h2 className="mb-2">By rater</h2>
      <RaterTable raters={grading.raters} lead={lead} studyId={study.id} />
      <h2 className="mt-8 mb-2">By prompt</h2>
      <PromptTable prompts={prompts} raters={grading.raters} linked={!study.blind} />
      {lead && !grading.closedAt && <CloseRound studyId={study.id} left={left} />}
    </div>
  );
}

function sent(rater: Rater): number {
  return rater.sheets.filter((s) => s.sentAt).length;
}

function RaterTable({ raters, lead, studyId }: { raters: Rater[]; lead: boolean; studyId: string }) {
  const invite = useInvite(studyId);
  return (
    <>
      <Table
        caption="Progress by rater"
        rows={raters}
        rowKey={(r) => r.raterId}
        columns={[
          { key: "name", head: "Rater", rowHeader: true, sortBy: (r) => r.name, cell: (r) => r.name },
          {
            key: "sheets",
            head: "Sheets",
            sortBy: sent,
            cell: (r) => (
              <span className="inline-flex items-center gap-3">
                <SheetBeads sheets={r.sheets} />
                {sent(r)} of {r.sheets.length} sent in
              </span>
            ),
          },
          {
            key: "begun",
            head: "Begun",
            align: "right",
            cell: (r) => r.sheets.filter((s) => !s.sentAt && s.made > 0).length || "–",
          },
          {
            key: "reasons",
            head: "Reasons given",
            align: "right",
            sortBy: (r) => r.sheets.reduce((sum, s) => sum + s.reasons, 0),
            cell: (r) => r.sheets.reduce((sum, s) => sum + s.reasons, 0),
          },
          {
            key: "account",
            head: "Account",
            cell: (r) =>
              r.hasPassword ? (
                r.signInName
              ) : (
                <span className="inline-flex items-center gap-2">
                  has not signed in yet
                  {lead && (
                    <Button disabled={invite.isPending} onClick={() => invite.mutate(r.raterId)}>
                      New link
                    </Button>
                  )}
                </span>
              ),
          },
        ]}
      />
      {invite.data && (
        <div className="mt-3">
          <InvitationList invitations={[invite.data]} />
        </div>
      )}
      {invite.isError && (
        <Note tone="trouble" role="alert" className="mt-3">
          {invite.error.message}
        </Note>
      )}
    </>
  );
}

/** One bead a sheet: full when sent in, half when begun, hollow before. */
function SheetBeads({ sheets }: { sheets: Rater["sheets"] }) {
  const shown = sheets.slice(0, 40);
  return (
    <svg width={shown.length * 11} height="12" aria-hidden="true">
      {shown.map((s, i) => (
        <g key={s.promptId + String(s.repeat)} transform={`translate(${i * 11 + 5.5} 6)`}>
          <circle r="4" fill={s.sentAt ? "var(--moss)" : "none"} stroke="var(--moss)" />
          {!s.sentAt && s.made > 0 && <path d="M-4 0a4 4 0 0 0 8 0z" fill="var(--moss)" />}
        </g>
      ))}
    </svg>
  );
}

type PromptTableProps = { prompts: Schemas["PromptTitle"][]; raters: Rater[]; linked: boolean };

function PromptTable({ prompts, raters, linked }: PromptTableProps) {
  const awaited = (promptId: string) =>
    raters.filter((r) => r.sheets.some((s) => s.promptId === promptId && !s.sentAt)).map((r) => r.name);
  const ready = (promptId: string) =>
    raters.filter((r) => r.sheets.some((s) => s.promptId === promptId && s.sentAt)).length;
  return (
    <Table
      caption="Progress by prompt"
      rows={prompts}
      rowKey={(p) => p.id}
      columns={[
        {
          key: "prompt",
          head: "Prompt",
          rowHeader: true,
          sortBy: (p) => p.title,
          cell: (p) => (
            <>
              {linked ? <Link to={`../answers/${p.id}`}>{p.title}</Link> : p.title}
              {p.faulty && <span className="ml-2 border-b-2 border-clay text-sm">set aside</span>}
            </>
          ),
        },
        { key: "kind", head: "Kind", sortBy: (p) => p.kind.name, cell: (p) => p.kind.name },
        { key: "sent", head: "Raters", align: "right", sortBy: (p) => ready(p.id), cell: (p) => ready(p.id) },
        {
          key: "awaited",
          head: "Still with",
          cell: (p) => awaited(p.id).join(", ") || <span className="text-ink-soft">nobody</span>,
        },
      ]}
    />
  );
}

function CloseRound({ studyId, left }: { studyId: string; left: number }) {
  const [asking, setAsking] = useState(false);
  const close = useCloseRound(studyId);
  return (
    <section className="mt-10 border-t border-rule pt-4">
      <h2>Close the round</h2>
      <p className="mt-1 mb-3 max-w-2xl">
        Closing ends grading and opens names, all grades and the recommendation to the raters. It cannot be undone,
        because they will have seen the names.
      </p>
      <Button onClick={() => setAsking(true)}>Close the round …</Button>
      <Confirm
        title="Close the round?"
        open={asking}
        onOpenChange={setAsking}
        action="Close the round"
        busy={close.isPending}
        onConfirm={() => close.mutate(undefined, { onSuccess: () => setAsking(false) })}
      >
        <p>
          {left === 0
            ? "Every sheet is sent in."
            : `${count(left, "sheet is", "sheets are")} not sent in. Grades on them will not count, and raters cannot go on with them.`}
        </p>
        <p>Raters will see which candidate wrote what. This cannot be undone.</p>
        {close.isError && <Note tone="trouble">{close.error.message}</Note>}
      </Confirm>
    </section>
  );
}
