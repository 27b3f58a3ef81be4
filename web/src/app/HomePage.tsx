import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { LIMITS } from "../api/limits";
import { useAccount } from "../features/account";
import { CalibrationsThatWait, myCalibrations } from "../features/calibration";
import { LeftBehind, myReminders, mySheets, Reminders, SheetList } from "../features/desk";
import { myReadings } from "../features/prompt";
import { mySplits, SplitsThatWait } from "../features/reconciliation";
import {
  AskedFor,
  askedFor,
  DeletedStudies,
  ExpectationForm,
  myStudies,
  StudyList,
  useBeginStudy,
} from "../features/study";
import { Button, buttonLook } from "../ui/Button";
import { Dialog } from "../ui/Dialog";
import { Field } from "../ui/Field";
import { Query } from "../ui/Query";
import { useSettled } from "../ui/useSettled";
import { useTitle } from "../ui/useTitle";

/** What awaits whoever signed in: sheets to grade, studies to look after. */
export function HomePage() {
  const account = useAccount();
  const sheets = useQuery(mySheets());
  const studies = useQuery(myStudies());
  const settled = useNoticesSettled();
  useTitle("Your sheets and studies");
  return (
    <main className="mx-auto w-full max-w-4xl px-6 py-8">
      <Query of={studies} what="your studies">
        {(all) => (
          <Query of={sheets} what="your sheets">
            {(own) =>
              settled && (
                <>
                  <LeftBehind accountId={account.id} />
                  <AskedFor />
                  <Reminders />
                  {own.length > 0 ? (
                    <SheetList sheets={own}>
                      <CalibrationsThatWait />
                      <SplitsThatWait />
                    </SheetList>
                  ) : (
                    <>
                      <CalibrationsThatWait />
                      <SplitsThatWait />
                    </>
                  )}
                  <Readings />
                  <Studies studies={all} mayBringIn={account.mayBringIn} hasSheets={own.length > 0} />
                  <DeletedStudies />
                  <p className="mt-10 text-sm text-ink-soft">
                    <Link to="/table">Try your own table</Link>: how far raters agree in it, without a study.
                  </p>
                </>
              )
            }
          </Query>
        )}
      </Query>
    </main>
  );
}

/** Longer than they take as a rule; without them the page can be used as well. */
const LONGEST_WAIT = 1_500;

/** Whether what stands above the sheets has come. */
function useNoticesSettled(): boolean {
  const notices = [useQuery(askedFor()), useQuery(myReminders()), useQuery(myCalibrations()), useQuery(mySplits())];
  return useSettled(notices, LONGEST_WAIT);
}

type StudiesProps = { studies: Schemas["StudySummary"][]; mayBringIn: boolean; hasSheets: boolean };

function Studies({ studies, mayBringIn, hasSheets }: StudiesProps) {
  const open = studies.filter((s) => s.role === "LEAD" || s.stage === "CLOSED");
  const awaited = studies.filter((s) => s.role !== "LEAD" && s.stage === "PREPARING");
  if (open.length === 0 && !mayBringIn) {
    if (awaited.length > 0) {
      return <Awaited studies={awaited} hasSheets={hasSheets} />;
    }
    return hasSheets ? null : (
      <>
        <h1>Nothing to grade</h1>
        <p className="mt-3">When a lead adds you to a study, your sheets stand here.</p>
      </>
    );
  }
  return (
    <section className={hasSheets ? "mt-12" : undefined}>
      <div className="mb-3 flex items-baseline gap-4">
        {hasSheets ? <h2>Studies</h2> : <h1>Studies</h1>}
        {mayBringIn && (
          <span className="ml-auto flex gap-2">
            <BeginStudy />
            <Link to="/bring-in" className={buttonLook("quiet")}>
              Bring in a study
            </Link>
          </span>
        )}
      </div>
      <StudyList />
    </section>
  );
}

/** Studies whose round is not open yet, for somebody who will grade in them. */
function Awaited({ studies, hasSheets }: { studies: Schemas["StudySummary"][]; hasSheets: boolean }) {
  const Title = hasSheets ? "h3" : "h2";
  return (
    <section className={hasSheets ? "mt-12" : undefined}>
      {hasSheets ? <h2>Being prepared</h2> : <h1>Nothing to grade yet</h1>}
      {studies.map((s) => (
        <div key={s.id} className="mt-5 border-t border-rule pt-4">
          <Title>{s.title}</Title>
          <p className="mt-1 mb-4 text-ink-soft">It is being prepared; your sheets stand here when its round opens.</p>
          <ExpectationForm studyId={s.id} />
        </div>
      ))}
    </section>
  );
}

/** Prompts that somebody was asked to read back. */
function Readings() {
  const readings = useQuery(myReadings());
  const open = readings.data?.filter((r) => r.open) ?? [];
  if (open.length === 0) {
    return null;
  }
  return (
    <section className="mt-8 mb-8">
      <h2>Prompts to read back</h2>
      <ul className="mt-2">
        {open.map((r) => (
          <li key={r.id} className="flex items-baseline gap-3 border-t border-rule py-1.5 last:border-b">
            <Link to={`/read-backs/${r.id}`} className="text-tarn underline underline-offset-4">
              {r.title}
            </Link>
            <span className="text-sm text-ink-soft">{r.studyTitle}</span>
            <span className="ml-auto text-sm">{r.answer === undefined ? "not read yet" : "read back"}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function BeginStudy() {
  const begin = useBeginStudy();
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const [title, setTitle] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    begin.mutate(title, { onSuccess: (study) => void navigate(`/studies/${study.id}/brief`) });
  };
  return (
    <>
      <Button tone="primary" onClick={() => setAsking(true)}>
        Begin a study
      </Button>
      <Dialog title="Begin a study" open={asking} onOpenChange={setAsking}>
        <form onSubmit={submit}>
          <Field
            label="Title"
            hint="What your team calls this decision; it can be changed until the brief is closed."
            required
            maxLength={LIMITS.BeginStudy.title}
            value={title}
            error={begin.error?.message}
            onChange={(e) => setTitle(e.target.value)}
          />
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={() => setAsking(false)}>Leave it</Button>
            <Button type="submit" tone="primary" disabled={begin.isPending}>
              Begin
            </Button>
          </div>
        </form>
      </Dialog>
    </>
  );
}
