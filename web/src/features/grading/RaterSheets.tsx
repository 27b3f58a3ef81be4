import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Choice, Field } from "../../ui/Field";
import { count, moment } from "../../ui/format";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { DealDialog } from "./DealDialog";
import { Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { TakeOutDialog } from "./TakeOutDialog";
import { type SheetStep, useSheetStep } from "./api";

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

type Asking = { sheet: Sheet; step: SheetStep["step"] };

const leftOf = (rater: Rater) => rater.sheets.filter((s) => !s.sentAt && s.withdrawn === undefined).length;

/** One rater's sheets, one by one, and what a lead may do with each. */
export function RaterSheets({ studyId, rater, raters, titles, closed }: RaterSheetsProps) {
  const step = useSheetStep(studyId);
  const [asking, setAsking] = useState<Asking>();
  const [dealing, setDealing] = useState<"in" | "out">();
  return (
    <section aria-label={`Sheets of ${rater.name}`} className="mt-4 border-l-2 border-edge pl-4">
      <div className="mb-1 flex items-baseline gap-4">
        <h3>Sheets of {rater.name}</h3>
        {!closed && (
          <>
            <Button onClick={() => setDealing("in")}>Deal sheets …</Button>
            {leftOf(rater) > 0 && <Button onClick={() => setDealing("out")}>Take them out …</Button>}
          </>
        )}
      </div>
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
            cell: (s) => (closed ? null : <SheetSteps sheet={s} onAsk={setAsking} />),
          },
        ]}
      />
      {dealing === "in" && <DealDialog {...{ studyId, rater, raters }} onClose={() => setDealing(undefined)} />}
      {dealing === "out" && <TakeOutDialog {...{ studyId, rater, raters }} onClose={() => setDealing(undefined)} />}
      {!asking && <Trouble error={step.error} className="mt-2" />}
      {asking && (
        <AskedStep
          asking={asking}
          title={titles.get(asking.sheet.promptId) ?? "this prompt"}
          rater={rater}
          raters={raters}
          step={step}
          onClose={() => setAsking(undefined)}
        />
      )}
    </section>
  );
}

type AskedStepProps = {
  asking: Asking;
  title: string;
  rater: Rater;
  raters: Rater[];
  step: ReturnType<typeof useSheetStep>;
  onClose: () => void;
};

/** The window that asks about a step before it is taken. */
function AskedStep({ asking, rater, raters, ...rest }: AskedStepProps) {
  const { sheet } = asking;
  switch (asking.step) {
    case "withdraw":
      return <WithdrawDialog {...rest} sheet={sheet} name={rater.name} />;
    case "give-back":
      return <GiveBackDialog {...rest} sheet={sheet} name={rater.name} />;
    case "hand-over":
      return <HandOverDialog {...rest} sheet={sheet} rater={rater} raters={raters} />;
  }
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
  return (
    <ReasonDialog
      title="Withdraw this sheet?"
      maxLength={LIMITS.Withdraw.reason}
      action="Withdraw it"
      busy={step.isPending}
      error={step.error?.message}
      onReason={(reason) => step.mutate({ step: "withdraw", sheetId: sheet.sheetId, reason }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <p>
        “{title}” with {name}.{" "}
        {sheet.made > 0 ? `Its ${count(sheet.made, "grade is", "grades are")} kept, and count` : "It counts"} nowhere
        from now on. You can give it back while the round is open.
      </p>
    </ReasonDialog>
  );
}

function GiveBackDialog({ title, name, sheet, step, onClose }: StepDialogProps & { name: string }) {
  return (
    <ReasonDialog
      title="Give this sheet back?"
      maxLength={LIMITS.GiveBack.reason}
      action="Give it back"
      busy={step.isPending}
      error={step.error?.message}
      onReason={(reason) => step.mutate({ step: "give-back", sheetId: sheet.sheetId, reason }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <p>
        “{title}” goes back to {name}, with the grades as they were. What is sent in counts again.
      </p>
    </ReasonDialog>
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
  sheet: Sheet;
  onAsk: (asking: Asking) => void;
};

function SheetSteps({ sheet, onAsk }: SheetStepsProps) {
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
        <Button onClick={() => onAsk({ sheet, step: "give-back" })}>Give it back …</Button>
      )}
    </span>
  );
}
