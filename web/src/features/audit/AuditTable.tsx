import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { Button, buttonLook } from "../../ui/Button";
import { Choice, Field } from "../../ui/Field";
import { moment } from "../../ui/format";
import { Query } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { useSettledText } from "../../ui/useSettledText";
import { type AuditEvent, type AuditFilter, auditEvents, linesAddress } from "./api";
import { DONE, SORTS } from "./words";

const ALL: AuditFilter = { who: "", sort: "" };

const isSort = (value: string): value is AuditEvent["sort"] => value in DONE;

/** What was done, newest first; of one study, or of all without what was in it. */
export function AuditTable({ studyId }: { studyId?: string }) {
  const [filter, setFilter] = useState(ALL);
  const asked = { ...filter, who: useSettledText(filter.who) };
  const events = useInfiniteQuery(auditEvents(studyId, asked));
  return (
    <>
      <div className="mt-4 mb-3 flex flex-wrap items-end gap-3 print:hidden">
        <Field
          label="Who"
          className="w-48"
          placeholder="sign-in name"
          value={filter.who}
          onChange={(e) => setFilter({ ...filter, who: e.target.value })}
        />
        <Choice
          label="What"
          className="w-60"
          value={filter.sort}
          options={[{ value: "", label: "All of it" }, ...SORTS]}
          onValue={(sort) => setFilter({ ...filter, sort: isSort(sort) ? sort : "" })}
        />
        <a href={linesAddress(studyId, filter)} download className={buttonLook("quiet")}>
          Save as JSON Lines
        </a>
      </div>
      <Query of={events} what="what was done">
        {({ pages }) => {
          const rows = pages.flatMap((p) => p.events);
          return rows.length === 0 ? (
            <p>Nothing of this sort was done.</p>
          ) : (
            <>
              <Table caption="What was done" rows={rows} rowKey={(e) => String(e.number)} columns={columns(studyId)} />
              {events.hasNextPage && (
                <Button
                  className="mt-3 print:hidden"
                  disabled={events.isFetchingNextPage}
                  onClick={() => void events.fetchNextPage()}
                >
                  Show older ones
                </Button>
              )}
            </>
          );
        }}
      </Query>
    </>
  );
}

function columns(studyId: string | undefined): Column<AuditEvent>[] {
  const inStudies: Column<AuditEvent> = {
    key: "study",
    head: "Study",
    cell: (e) =>
      e.studyId !== undefined && (
        <Link to={`/studies/${e.studyId}`} className="font-mono text-sm" title="Opens to those who belong to it">
          {e.studyId.slice(0, 8)}
        </Link>
      ),
  };
  return [
    { key: "at", head: "When", cell: (e) => <span className="whitespace-nowrap">{moment(e.at)}</span> },
    {
      key: "who",
      head: "Who",
      cell: (e) => (e.who !== "" ? e.who : <i>{e.address === undefined ? "the server" : "nobody signed in"}</i>),
    },
    { key: "what", head: "What", rowHeader: true, cell: (e) => DONE[e.sort] },
    ...(studyId === undefined ? [inStudies] : []),
    {
      key: "subject",
      head: "Of what",
      cell: (e) =>
        e.subject === undefined ? (
          <span className="text-ink-soft">told in the study</span>
        ) : (
          <span className="break-words">{e.subject}</span>
        ),
    },
    { key: "from", head: "From", cell: (e) => <span className="font-mono text-sm">{e.address}</span> },
  ];
}
