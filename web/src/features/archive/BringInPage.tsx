import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { ApiProblem, type Schemas } from "../../api/client";
import { Button, buttonLook } from "../../ui/Button";
import { FaultList } from "../../ui/FaultList";
import { FilePicker } from "../../ui/FilePicker";
import { moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { useTitle } from "../../ui/useTitle";
import { InvitationList } from "../account";
import { studyKeys } from "../study";
import { isUnderWay, useBegin, useGiveUp, useImport } from "./imports";
import { UnderWay } from "./UnderWay";

export function BringInPage() {
  const client = useQueryClient();
  const job = useImport();
  const begin = useBegin();
  const giveUp = useGiveUp();
  const [file, setFile] = useState<File>();
  const state = job.data?.state;
  useEffect(() => {
    if (state === "DONE") {
      void client.invalidateQueries({ queryKey: studyKeys.all });
    }
  }, [state, client]);
  useTitle("Bring in a study");
  const send = (chosen: File, again = false) => {
    setFile(chosen);
    begin.mutate({ file: chosen, again });
  };
  return (
    <main className="mx-auto w-full max-w-4xl px-6 py-8">
      <p className="text-sm">
        <Link to="/">Your studies</Link>
      </p>
      <h1 className="mt-1">Bring in a study</h1>
      {job.data?.brought ? (
        <Brought brought={job.data.brought} {...(file ? { onAgain: () => send(file, true) } : {})} />
      ) : (
        <>
          <Explanation />
          {job.data && isUnderWay(job.data) ? (
            <UnderWay job={job.data} givingUp={giveUp.isPending} onGiveUp={(id) => giveUp.mutate(id)} />
          ) : (
            <FilePicker
              label={begin.isPending ? "Sending …" : "Drop the zip file here, or choose it"}
              accept=".zip,application/zip"
              busy={begin.isPending}
              onFile={(chosen) => send(chosen)}
            />
          )}
          <Ended job={job.data} error={begin.error ?? job.error ?? giveUp.error} />
        </>
      )}
    </main>
  );
}

function Explanation() {
  return (
    <p className="mt-2 mb-5 max-w-2xl">
      Choose an archive: a zip of CSV and Markdown files with <code className="font-mono">datapackage.json</code> at the
      top. It is checked as a whole before anything is written. The format is described in{" "}
      <code className="font-mono">docs/formats/archive.md</code>, which comes with Mossbank.
    </p>
  );
}

const FORGOTTEN =
  "What became of this import is not known any more: it is long ago, or the server started anew. " +
  "If it was loaded, the study stands in your list; sending the same file again makes no second one.";

/** Why nothing came of it, where nothing did. */
function Ended({ job, error }: { job: Schemas["ImportView"] | null | undefined; error: Error | null }) {
  const why = error instanceof ApiProblem && error.type === "not-found" ? FORGOTTEN : (error?.message ?? job?.detail);
  if (why === undefined) {
    return null;
  }
  return (
    <section className="mt-6">
      <Note tone={job?.state === "CANCELLED" && !error ? "caution" : "trouble"} role="alert">
        {why}
      </Note>
      {job && !error && <FaultList caption="Faults in the archive" faults={job.faults} />}
    </section>
  );
}

function Brought({ brought, onAgain }: { brought: Schemas["Brought"]; onAgain?: () => void }) {
  return (
    <div className="mt-4 grid gap-4">
      {brought.thereSince ? (
        <Note tone="caution" role="status">
          You brought in this very file on {moment(brought.thereSince)}, and it made “{brought.title}”. Nothing was done
          now.
        </Note>
      ) : (
        <Note tone="good" role="status">
          “{brought.title}” is loaded.
        </Note>
      )}
      {brought.notes.length > 0 && (
        <Note tone="caution">
          <h2 className="text-base">Worth a look before raters begin</h2>
          <ul className="mt-1">
            {brought.notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        </Note>
      )}
      {brought.invitations.length > 0 && <InvitationList invitations={brought.invitations} />}
      <p className="flex flex-wrap gap-3">
        <Link to={`/studies/${brought.studyId}/grading`} className={buttonLook("primary")}>
          Go to the study
        </Link>
        {brought.thereSince && onAgain && <Button onClick={onAgain}>Bring it in once more</Button>}
      </p>
    </div>
  );
}
