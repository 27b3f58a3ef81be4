import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Confirm, Dialog } from "../../ui/Dialog";
import { Choice, Field } from "../../ui/Field";
import { count, moment } from "../../ui/format";
import { Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { useSheetStep } from "./api";

type Progress = Schemas["GradingProgress"];
type Rater = Progress["raters"][number];
type Sheet = Rater["sheets"][number];

type RaterSheetsProps = {
  studyId: string;
  rater: Rater;
  raters: Rater[];
  titles: ReadonlyMap<string, string>;
  closed: boolean;
};

type Asking = { sheet: Sheet; step: "withdraw" | "hand-over" };

/** One rater's sheets, one by one, and what a lead may do with each. */
export function RaterSheets({ studyId, rater, raters, titles, closed }: RaterSheetsProps) {
  const step = useSheetStep(studyId);
  const [asking, setAsking] = useState<Asking>();
  return (
    <section aria-label={`Sheets of ${rater.name}`} className="mt-4 border-l-2 border-edge pl-4">
      <h3 className="mb-1">Sheets of {rater.name}</h3>
      <Table
        caption={`Sheets of ${rater.name}`}
        rows={rater.sheets}
        rowKey={(s) => s.sheetId}
        columns={[
          { key: "place", head: "No.", align: "right", sortBy: (s) => s.place, cell: (s) => s.place },
          {
            key: "prompt",
            head: "Prompt",
            rowHeader: true,
            sortBy: (s) => titles.get(s.promptId) ?? "",
            cell: (s) => (
              <>
                {titles.get(s.promptId) ?? "a prompt"}
                {s.repeat && <span className="ml-2 text-sm text-ink-soft">a second time, unannounced</span>}
              </>
            ),
          },
          { key: "state", head: "State", cell: (s) => <SheetState sheet={s} /> },
          {
            key: "steps",
            head: closed ? "" : "Steps",
            cell: (s) => (closed ? null : <SheetSteps sheet={s} step={step} onAsk={setAsking} />),
          },
        ]}
      />
      {!asking && <Trouble error={step.error} className="mt-2" />}
      {asking?.step === "withdraw" && (
        <WithdrawDialog
          title={titles.get(asking.sheet.promptId) ?? "this prompt"}
          name={rater.name}
          sheet={asking.sheet}
          step={step}
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.step === "hand-over" && (
        <HandOverDialog
          title={titles.get(asking.sheet.promptId) ?? "this prompt"}
          rater={rater}
          raters={raters}
          sheet={asking.sheet}
          step={step}
          onClose={() => setAsking(undefined)}
        />
      )}
    </section>
  );
}

function SheetState({ sheet }: { sheet: Sheet }) {
  if (sheet.withdrawn !== undefined) {
    return (
      <>
        <span className="border-b-2 border-clay">withdrawn</span>: {sheet.withdrawn}
        {sheet.made > 0 && <span className="text-ink-soft"> {count(sheet.made, "grade", "grades")} kept.</span>}
      </>
    );
  }
  const state = sheet.sentAt
    ? `sent in ${moment(sheet.sentAt)}`
    : sheet.made > 0
      ? `${sheet.made} of ${sheet.cells} grades`
      : "not begun";
  return (
    <>
      {state}
      {sheet.takenBack > 0 && (
        <span className="text-ink-soft">, taken back {count(sheet.takenBack, "time", "times")}</span>
      )}
    </>
  );
}

type StepDialogProps = {
  title: string;
  sheet: Sheet;
  step: ReturnType<typeof useSheetStep>;
  onClose: () => void;
};

function WithdrawDialog({ title, name, sheet, step, onClose }: StepDialogProps & { name: string }) {
  const [reason, setReason] = useState("");
  return (
    <Confirm
      title="Withdraw this sheet?"
      open
      onOpenChange={(open) => !open && onClose()}
      action="Withdraw it"
      busy={step.isPending || reason.trim() === ""}
      onConfirm={() => step.mutate({ step: "withdraw", sheetId: sheet.sheetId, reason }, { onSuccess: onClose })}
    >
      <p>
        “{title}” with {name}.{" "}
        {sheet.made > 0 ? `Its ${count(sheet.made, "grade is", "grades are")} kept, and count` : "It counts"} nowhere
        from now on. You can give it back while the round is open.
      </p>
      <Field
        label="Why"
        required
        maxLength={LIMITS.Withdraw.reason}
        value={reason}
        error={step.error?.message}
        onChange={(e) => setReason(e.target.value)}
      />
    </Confirm>
  );
}

function HandOverDialog({
  title,
  rater,
  raters,
  sheet,
  step,
  onClose,
}: StepDialogProps & { rater: Rater; raters: Rater[] }) {
  const takers = raters.filter(
    (r) => r.raterId !== rater.raterId && !r.sheets.some((s) => s.promptId === sheet.promptId),
  );
  const [to, setTo] = useState(takers[0]?.raterId ?? "");
  const [reason, setReason] = useState("");
  return (
    <Dialog title="Hand this sheet over" open onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">
        “{title}” goes from {rater.name} to somebody else, who begins with an empty sheet in an order of their own. What{" "}
        {rater.name} graded is kept and counts nowhere.
      </p>
      {takers.length === 0 ? (
        <p className="text-ink-soft">Every other rater has a sheet for this prompt already.</p>
      ) : (
        <div className="grid gap-3">
          <Choice
            label="To"
            value={to}
            options={takers.map((t) => ({ value: t.raterId, label: t.name }))}
            onValue={setTo}
          />
          <Field
            label="Why"
            required
            maxLength={LIMITS.HandOver.reason}
            value={reason}
            error={step.error?.message}
            onChange={(e) => setReason(e.target.value)}
          />
        </div>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button
          tone="primary"
          disabled={step.isPending || reason.trim() === "" || to === ""}
          onClick={() =>
            step.mutate({ step: "hand-over", sheetId: sheet.sheetId, raterId: to, reason }, { onSuccess: onClose })
          }
        >
          Hand it over
        </Button>
      </div>
    </Dialog>
  );
}

type SheetStepsProps = {
  sheet: Rater["sheets"][number];
  step: ReturnType<typeof useSheetStep>;
  onAsk: (asking: Asking) => void;
};

function SheetSteps({ sheet, step, onAsk }: SheetStepsProps) {
  return (
    <span className="flex gap-2">
      {sheet.withdrawn === undefined ? (
        <>
          <Button onClick={() => onAsk({ sheet, step: "withdraw" })}>Withdraw …</Button>
          {!sheet.sentAt && !sheet.repeat && (
            <Button onClick={() => onAsk({ sheet, step: "hand-over" })}>Hand over …</Button>
          )}
        </>
      ) : (
        <Button disabled={step.isPending} onClick={() => step.mutate({ step: "give-back", sheetId: sheet.sheetId })}>
          Give it back
        </Button>
      )}
    </span>
  );
}
