import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { count, duration, moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Failure } from "../../ui/Query";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { useTitle } from "../../ui/useTitle";
import { promptTitles } from "../prompt";
import { useStudy } from "../study";
import { TakeUpWidest } from "../reconciliation";
import { gradingOfStudy, oversightOf, useCloseRound, useReopenRound } from "./api";
import { LateRater } from "./LateRater";
import { Oversight } from "./Oversight";
import { KindTable, PromptTable } from "./ProgressTables";
import { RaterSheets } from "./RaterSheets";
import { RaterTable } from "./RaterTable";
import { RoundPlan } from "./RoundPlan";

type Progress = Schemas["GradingProgress"];

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
    <RoundProgress grading={ofTheRound(grading.data)} openedAt={grading.data.openedAt} prompts={prompts.data} />
  );
}

/** Without what raters calibrate by, which counts nowhere. */
const ofTheRound = (grading: Progress): Progress => ({
  ...grading,
  raters: grading.raters.map((r) => ({ ...r, sheets: r.sheets.filter((s) => !s.calibrates) })),
});

const leftOf = (sheets: { sentAt?: string }[]) => sheets.filter((s) => !s.sentAt).length;

type RoundProgressProps = { grading: Progress; openedAt: string; prompts: Schemas["PromptTitle"][] };

function RoundProgress({ grading, openedAt, prompts }: RoundProgressProps) {
  const study = useStudy();
  const setAside = new Set(prompts.filter((p) => p.faulty).map((p) => p.id));
  const sheets = grading.raters
    .flatMap((r) => r.sheets)
    .filter((s) => !setAside.has(s.promptId) && s.withdrawn === undefined);
  const lead = study.role === "LEAD";
  const closed = grading.closedAt !== undefined;
  const oversight = useQuery({ ...oversightOf(study.id), enabled: lead && !study.blind });
  const [search, setSearch] = useSearchParams();
  const chosen = grading.raters.find((r) => r.raterId === search.get("rater"));
  const leftMs = oversight.data?.raters.reduce((sum, r) => sum + (r.leftMs ?? 0), 0) ?? 0;
  if (oversight.isLoading) {
    // All at once, so that nothing moves under the reader's hand.
    return <p role="status">Fetching the progress …</p>;
  }
  return (
    <div className="max-w-5xl">
      <h1>Grading</h1>
      <HowFar
        sheets={sheets.length}
        left={leftOf(sheets)}
        setAside={setAside.size}
        leftMs={leftMs}
        openedAt={openedAt}
        closedAt={grading.closedAt}
      />
      {study.blind && <BlindNote />}
      {oversight.isError && (
        <Failure error={oversight.error} what="how the raters grade" onRetry={() => void oversight.refetch()} />
      )}
      <h2 className="mb-2">By rater</h2>
      <RaterTable
        raters={grading.raters}
        oversight={oversight.data}
        lead={lead}
        closed={closed}
        studyId={study.id}
        chosen={chosen?.raterId}
        onChoose={(raterId) => setSearch(raterId ? { rater: raterId } : {}, { replace: true })}
      />
      {lead && chosen && (
        <RaterSheets
          studyId={study.id}
          rater={chosen}
          raters={grading.raters}
          titles={new Map(prompts.map((p) => [p.id, p.title]))}
          closed={closed}
        />
      )}
      {lead && !closed && <LateRater studyId={study.id} />}
      {oversight.data && <Oversight oversight={oversight.data} raters={grading.raters} />}
      <h2 className="mt-8 mb-2">By kind</h2>
      <KindTable prompts={prompts} raters={grading.raters} />
      <h2 className="mt-8 mb-2">By prompt</h2>
      <PromptTable prompts={prompts} raters={grading.raters} linked={!study.blind} />
      {lead && !closed && study.blind && <TalkThrough studyId={study.id} />}
      {lead && (closed ? <ReopenRound studyId={study.id} /> : <CloseRound studyId={study.id} left={leftOf(sheets)} />)}
    </div>
  );
}

/** For a lead who grades, and sees no list of splits. */
function TalkThrough({ studyId }: { studyId: string }) {
  return (
    <section className="mt-10 border-t border-rule pt-4">
      <h2>Talk splits through</h2>
      <p className="mt-1 mb-3 max-w-2xl">
        Where raters lie two levels or more apart, those who graded the answer can talk. You grade, so you see those
        that concern you, on your first page.
      </p>
      <TakeUpWidest studyId={studyId} />
    </section>
  );
}

function CloseRound({ studyId, left }: { studyId: string; left: number }) {
  const [asking, setAsking] = useState(false);
  const close = useCloseRound(studyId);
  return (
    <section className="mt-10 border-t border-rule pt-4">
      <h2>Close the round</h2>
      <p className="mt-1 mb-3 max-w-2xl">
        Closing ends grading and opens names, all grades and the recommendation to the raters. It can be opened again
        with a reason; what they have seen by then stays seen, and is told with the outcome.
      </p>
      <Button onClick={() => setAsking(true)}>Close the round …</Button>
      {asking && (
        <ReasonDialog
          title="Close the round?"
          label={left === 0 ? "A word on it" : "Why now"}
          optional={left === 0}
          maxLength={LIMITS.CloseRound.reason}
          action="Close the round"
          busy={close.isPending}
          error={close.error?.message}
          onReason={(reason) => close.mutate(reason, { onSuccess: () => setAsking(false) })}
          onClose={() => setAsking(false)}
        >
          <p>
            {left === 0
              ? "Every sheet is sent in."
              : `${count(left, "sheet is", "sheets are")} not sent in. Grades on them will not count, and raters cannot go on with them.`}
          </p>
          <p>Raters will see which candidate wrote what.</p>
          {close.isPending && <p role="status">It is being closed, and what came of it worked out …</p>}
        </ReasonDialog>
      )}
    </section>
  );
}

function ReopenRound({ studyId }: { studyId: string }) {
  const [asking, setAsking] = useState(false);
  const reopen = useReopenRound(studyId);
  return (
    <section className="mt-10 border-t border-rule pt-4">
      <h2>Open the round again</h2>
      <p className="mt-1 mb-3 max-w-2xl">
        What counts stays as it is while the round is closed: no sheet is withdrawn, no prompt set aside, no rule
        changed. Whoever must do so opens it again.
      </p>
      <Button onClick={() => setAsking(true)}>Open it again …</Button>
      {asking && (
        <ReasonDialog
          title="Open the round again?"
          maxLength={LIMITS.ReopenRound.reason}
          action="Open it again"
          busy={reopen.isPending}
          error={reopen.error?.message}
          onReason={(reason) => reopen.mutate(reason, { onSuccess: () => setAsking(false) })}
          onClose={() => setAsking(false)}
        >
          <p>
            Raters have seen names and grades. Sheets that are sent in from now on are counted as graded by people who
            knew, and the recommendation says how many they are.
          </p>
          <p>How candidates stand is hidden again until the round is closed.</p>
        </ReasonDialog>
      )}
    </section>
  );
}

type HowFarProps = {
  sheets: number;
  left: number;
  setAside: number;
  leftMs: number;
  openedAt: string;
  closedAt: string | undefined;
};

function HowFar({ sheets, left, setAside, leftMs, openedAt, closedAt }: HowFarProps) {
  return (
    <p className="mt-1 mb-5 text-ink-soft">
      {sheets - left} of {count(sheets, "sheet", "sheets")} are sent in. The round opened {moment(openedAt)}
      {closedAt ? ` and was closed ${moment(closedAt)}.` : "."}
      {setAside > 0 &&
        ` ${count(setAside, "prompt is", "prompts are")} set aside and ${setAside === 1 ? "counts" : "count"} nowhere.`}
      {closedAt === undefined && leftMs > 0 && ` About ${duration(leftMs)} of grading is left, at the pace so far.`}
    </p>
  );
}

function BlindNote() {
  return (
    <Note tone="info" className="mb-5">
      You grade in this round: names, measures, answers and results are hidden from you until it is closed.
    </Note>
  );
}
