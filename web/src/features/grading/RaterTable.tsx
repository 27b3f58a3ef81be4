import { type ReactNode, useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { duration, moment } from "../../ui/format";
import { type Column, Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { InvitationList } from "../account";
import { useInvite } from "./api";
import { RemindDialog } from "./RemindDialog";

type Rater = Schemas["GradingProgress"]["raters"][number];

type RaterTableProps = {
  raters: Rater[];
  oversight: Schemas["OversightView"] | undefined;
  lead: boolean;
  closed: boolean;
  studyId: string;
  /** Whose sheets are listed below. */
  chosen: string | undefined;
  onChoose: (raterId: string | undefined) => void;
};

/** Sheets that the rater still has, withdrawn ones left out. */
const held = (rater: Rater) => rater.sheets.filter((s) => s.withdrawn === undefined);
const sent = (rater: Rater) => held(rater).filter((s) => s.sentAt).length;

/** How far each rater is, at what pace, and a word to those who still have sheets. */
export function RaterTable(props: RaterTableProps) {
  const { raters, studyId } = props;
  const invite = useInvite(studyId);
  const [reminding, setReminding] = useState<Rater>();
  return (
    <>
      <Table
        caption="Progress by rater"
        rows={raters}
        rowKey={(r) => r.raterId}
        columns={raterColumns(props, (r) => (
          <Account rater={r} {...props} invite={invite} onRemind={() => setReminding(r)} />
        ))}
      />
      {invite.data && (
        <div className="mt-3">
          <InvitationList invitations={[invite.data]} />
        </div>
      )}
      <Trouble error={invite.error} className="mt-3" />
      {reminding && (
        <RemindDialog
          studyId={studyId}
          raterId={reminding.raterId}
          name={reminding.name}
          left={held(reminding).length - sent(reminding)}
          onClose={() => setReminding(undefined)}
        />
      )}
    </>
  );
}

function TimeLeft({ pace }: { pace: Schemas["RaterOversight"] | undefined }) {
  if (!pace || pace.answersLeft === 0) {
    return <span className="text-ink-soft">nothing left</span>;
  }
  return pace.leftMs === undefined ? (
    <span className="text-ink-soft">{pace.answersLeft} answers, no pace yet</span>
  ) : (
    <>
      {duration(pace.leftMs)} <span className="text-ink-soft">for {pace.answersLeft} answers</span>
    </>
  );
}

/** Pixels that a bead takes. */
const BEAD = 11;
const BEADS_A_ROW = 18;
const MOST_BEADS = 72;

/** One bead a sheet: full when sent in, half when begun, hollow before. */
function SheetBeads({ sheets }: { sheets: Rater["sheets"] }) {
  const shown = sheets.slice(0, MOST_BEADS);
  const height = Math.ceil(shown.length / BEADS_A_ROW) * BEAD;
  return (
    <svg
      width={Math.min(shown.length, BEADS_A_ROW) * BEAD}
      height={height}
      className="my-1 shrink-0"
      aria-hidden="true"
    >
      {shown.map((s, i) => (
        <g
          key={s.sheetId}
          transform={`translate(${((i % BEADS_A_ROW) + 0.5) * BEAD} ${(Math.floor(i / BEADS_A_ROW) + 0.5) * BEAD})`}
        >
          <circle r="4" fill={s.sentAt ? "var(--moss)" : "none"} stroke="var(--moss)" />
          {!s.sentAt && s.made > 0 && <path d="M-4 0a4 4 0 0 0 8 0z" fill="var(--moss)" />}
        </g>
      ))}
    </svg>
  );
}

function raterColumns(props: RaterTableProps, account: (rater: Rater) => ReactNode): Column<Rater>[] {
  const { oversight, lead, closed, chosen, onChoose } = props;
  return [
    {
      key: "name",
      head: "Rater",
      rowHeader: true,
      sortBy: (r) => r.name,
      cell: (r) =>
        lead ? (
          <button
            type="button"
            aria-expanded={chosen === r.raterId}
            className="text-left text-tarn underline underline-offset-4"
            onClick={() => onChoose(chosen === r.raterId ? undefined : r.raterId)}
          >
            {r.name}
          </button>
        ) : (
          r.name
        ),
    },
    {
      key: "sheets",
      head: "Sheets",
      sortBy: sent,
      cell: (r) => (
        <span className="inline-flex flex-wrap items-center gap-x-3">
          <SheetBeads sheets={held(r)} />
          <span className="whitespace-nowrap">
            {sent(r)} of {held(r).length} sent in
          </span>
        </span>
      ),
    },
    {
      key: "begun",
      head: "Begun",
      align: "right",
      cell: (r) => held(r).filter((s) => !s.sentAt && s.made > 0).length || "–",
    },
    {
      key: "reasons",
      head: "Reasons",
      align: "right",
      sortBy: (r) => r.sheets.reduce((sum, s) => sum + s.reasons, 0),
      cell: (r) => r.sheets.reduce((sum, s) => sum + s.reasons, 0),
    },
    ...(oversight ? paceColumns(oversight) : []),
    {
      key: "word",
      head: closed ? "Account" : "Account and reminders",
      cell: account,
    },
  ];
}

/** How fast each grades, and how long the rest takes. */
function paceColumns(oversight: NonNullable<RaterTableProps["oversight"]>): Column<Rater>[] {
  const paceOf = (rater: Rater) => oversight.raters.find((o) => o.raterId === rater.raterId);
  return [
    {
      key: "pace",
      head: "Time an answer",
      align: "right",
      sortBy: (r) => paceOf(r)?.msAnAnswer ?? 0,
      cell: (r) => {
        const ms = paceOf(r)?.msAnAnswer;
        return ms === undefined ? <span className="text-ink-soft">not measured</span> : duration(ms);
      },
    },
    {
      key: "left",
      head: "Left at this pace",
      align: "right",
      sortBy: (r) => paceOf(r)?.leftMs ?? 0,
      cell: (r) => <TimeLeft pace={paceOf(r)} />,
    },
  ];
}

type AccountProps = Pick<RaterTableProps, "lead" | "closed"> & {
  rater: Rater;
  invite: ReturnType<typeof useInvite>;
  onRemind: () => void;
};

/** Whether a rater has an account, and what the lead can do to get them to work. */
function Account({ rater, lead, closed, invite, onRemind }: AccountProps) {
  return !rater.hasPassword ? (
    <span className="inline-flex items-center gap-2">
      has not signed in yet
      {lead && (
        <Button disabled={invite.isPending} onClick={() => invite.mutate(rater.raterId)}>
          New link
        </Button>
      )}
    </span>
  ) : (
    <span className="inline-flex items-center gap-2">
      {rater.signInName}
      {lead && !closed && sent(rater) < held(rater).length && <Button onClick={() => onRemind()}>Remind …</Button>}
      {rater.remindedAt !== undefined && (
        <span className="text-sm text-ink-soft">reminded {moment(rater.remindedAt)}</span>
      )}
    </span>
  );
}
