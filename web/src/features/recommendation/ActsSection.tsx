import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { moment } from "../../ui/format";
import { Query } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { useStudy } from "../study";
import { actsOfStudy } from "./api";

type Act = Schemas["ActView"];

const DONE: Record<Act["sort"], string> = {
  BRIEF_CLOSED: "Brief closed",
  BRIEF_REOPENED: "Brief reopened",
  RUBRIC_PUBLISHED: "Rubric published",
  CALIBRATION_BEGUN: "began a calibration",
  CALIBRATION_AGAIN: "had a calibration graded again",
  MASKING_CHANGED: "Masking changed",
  CONSIDERATIONS_CHANGED: "Considerations changed",
  ROUND_OPENED: "Round opened",
  LOOK_TAKEN: "Look taken",
  ROUND_CLOSED: "Round closed",
  ROUND_REOPENED: "Round opened again",
  PROMPT_SET_ASIDE: "Prompt set aside",
  PROMPT_TAKEN_UP: "Prompt counted again",
  SHEET_WITHDRAWN: "Sheet withdrawn",
  SHEET_GIVEN_BACK: "Sheet given back",
  SHEET_HANDED_OVER: "Sheet handed over",
  RATER_TAKEN_OUT: "took a rater out of the round",
  SHEETS_DEALT: "Sheets dealt",
  SPLIT_SETTLED: "Split settled by the lead",
  SPLIT_LEFT_OPEN: "Split left open",
  SPLIT_OPENED_AGAIN: "Split opened again",
};

/** Everything that people did which may have changed the outcome, in order of time. */
export function ActsSection() {
  const study = useStudy();
  const acts = useQuery(actsOfStudy(study.id));
  return (
    <section className="mt-8">
      <h2 className="mb-1">Acts on record</h2>
      <p className="mb-2 max-w-3xl text-sm text-ink-soft">
        What people did that may change the outcome, with what the rule said before and after. Nothing is ever taken
        from this list.
      </p>
      <Query of={acts} what="the record">
        {(all) => (all.length === 0 ? <p>Nothing yet.</p> : <ActsTable acts={all} />)}
      </Query>
    </section>
  );
}

function ActsTable({ acts }: { acts: Act[] }) {
  return (
    <Table
      caption="Acts on record"
      rows={acts.map((act, i) => ({ act, number: i + 1 }))}
      rowKey={(r) => String(r.number)}
      columns={[
        {
          key: "at",
          head: "When",
          sortBy: (r) => r.number,
          cell: (r) => <span className="whitespace-nowrap">{moment(r.act.at)}</span>,
        },
        { key: "by", head: "Who", sortBy: (r) => r.act.by, cell: (r) => <Who act={r.act} /> },
        {
          key: "what",
          head: "What",
          rowHeader: true,
          sortBy: (r) => DONE[r.act.sort],
          cell: (r) => <What act={r.act} />,
        },
        { key: "outcome", head: "Outcome", cell: (r) => <Change act={r.act} /> },
      ]}
    />
  );
}

function Who({ act }: { act: Act }) {
  return (
    <>
      {act.by}
      <span className="block text-sm text-ink-soft">{act.namesKnown ? "knew the names" : "blind"}</span>
    </>
  );
}

function What({ act }: { act: Act }) {
  return (
    <>
      <span className="font-medium">{DONE[act.sort]}</span>
      {act.subject && <span className="block break-words">{act.subject}</span>}
      {act.reason && <span className="block break-words text-ink-soft">{act.reason}</span>}
    </>
  );
}

function Change({ act }: { act: Act }) {
  const { before, after } = act;
  if (!after && !before) {
    return <span className="text-ink-soft">–</span>;
  }
  if (before && after && before.headline === after.headline) {
    return <span className="text-ink-soft">unchanged</span>;
  }
  return (
    <>
      {before && <span className="block text-ink-soft">Before: {before.headline}</span>}
      {after && <span className="block">After: {after.headline}</span>}
    </>
  );
}
