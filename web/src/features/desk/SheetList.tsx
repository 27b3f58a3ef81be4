import { useInfiniteQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button, buttonLook } from "../../ui/Button";
import { count, moment } from "../../ui/format";
import { Failure } from "../../ui/Query";
import { earlierSheets } from "./api";

type Sheet = Schemas["SheetSummary"];

/** Milliseconds for the list to be there first. */
const FETCH_DESK_AFTER = 200;

/** Whether there is still something to do on it. */
function isLeft(sheet: Sheet): boolean {
  return !sheet.sentAt && !sheet.roundClosed && !sheet.setAside && !sheet.withdrawn;
}

type SheetListProps = {
  sheets: Sheet[];
  /** What else waits, below what is left to grade. */
  children?: ReactNode;
};

/** A rater's sheets by study, with the next one to grade on top. */
export function SheetList({ sheets, children }: SheetListProps) {
  const left = sheets.filter(isLeft).length;
  // Whoever has sheets opens one next: what the desk is made of is fetched while the list is read.
  useEffect(() => {
    const soon = setTimeout(() => void import("./DeskPage"), FETCH_DESK_AFTER);
    return () => clearTimeout(soon);
  }, []);
  return (
    <section>
      <h1>{left === 0 ? "All your sheets are sent in" : `${count(left, "sheet", "sheets")} left to grade`}</h1>
      {left === 0 && (
        <p className="mt-2 text-ink-soft">Thank you. You can read them, and take one back while the round is open.</p>
      )}
      {children}
      <Studies sheets={sheets} />
      <EarlierStudies last={sheets} />
    </section>
  );
}

const Studies = ({ sheets }: { sheets: Sheet[] }) =>
  [...Map.groupBy(sheets, (s) => s.studyId).values()].map((ofStudy) => (
    <StudySheets key={ofStudy[0]?.studyId} sheets={ofStudy} />
  ));

/** Always one page ahead, so that nobody is offered what is not there. */
function EarlierStudies({ last }: { last: Sheet[] }) {
  const [shown, setShown] = useState(0);
  const earlier = useInfiniteQuery(earlierSheets(last.some((s) => s.roundClosed)));
  const pages = earlier.data?.pages ?? [];
  const isMore = (pages[shown]?.length ?? 0) > 0;
  const show = () => {
    setShown(shown + 1);
    void earlier.fetchNextPage();
  };
  return (
    <>
      <Studies sheets={pages.slice(0, shown).flat()} />
      {earlier.error && (
        <Failure error={earlier.error} what="earlier studies" onRetry={() => void earlier.fetchNextPage()} />
      )}
      {isMore && (
        <Button className="mt-6" onClick={show}>
          Show earlier studies
        </Button>
      )}
    </>
  );
}

function StudySheets({ sheets }: { sheets: Sheet[] }) {
  const next = sheets.find(isLeft);
  const sent = sheets.filter((s) => s.sentAt).length;
  return (
    <section className="mt-10">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-edge pb-2">
        <h2 className="min-w-0 break-words">{sheets[0]?.studyTitle}</h2>
        <span className="text-sm whitespace-nowrap text-ink-soft">
          {sent} of {sheets.length} sent in
        </span>
        {next && (
          <Link to={`/sheets/${next.id}`} className={`ml-auto ${buttonLook("primary")}`}>
            {next.made > 0 ? "Go on grading" : "Grade the next sheet"}
          </Link>
        )}
      </div>
      <ol>
        {sheets.map((sheet) => (
          <li key={sheet.id} className="flex items-baseline gap-3 border-b border-rule py-1.5">
            <span className="w-6 text-right text-ink-soft tabular-nums">{sheet.place}</span>
            <Link to={`/sheets/${sheet.id}`} className="min-w-0 truncate text-tarn underline underline-offset-4">
              {sheet.promptTitle}
            </Link>
            <span className="text-sm text-ink-soft">
              {sheet.kind}
              {sheet.calibration !== undefined && ", to calibrate by"}
            </span>
            <span className="ml-auto text-sm whitespace-nowrap">
              {sheet.withdrawn ? (
                <span className="text-ink-soft">withdrawn by the lead</span>
              ) : sheet.setAside ? (
                <span className="text-ink-soft">set aside: the prompt was faulty</span>
              ) : sheet.sentAt ? (
                <span className="text-ink-soft">sent in {moment(sheet.sentAt)}</span>
              ) : sheet.roundClosed ? (
                "not sent in; the round is closed"
              ) : sheet.made > 0 ? (
                `${sheet.made} of ${sheet.cells} grades`
              ) : (
                "not begun"
              )}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
