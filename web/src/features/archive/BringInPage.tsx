import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { ApiProblem, type Schemas, upload } from "../../api/client";
import { buttonLook } from "../../ui/Button";
import { FaultList } from "../../ui/FaultList";
import { FilePicker } from "../../ui/FilePicker";
import { Note } from "../../ui/Note";
import { useTitle } from "../../ui/useTitle";
import { InvitationList } from "../account";
import { studyKeys } from "../study";

export function BringInPage() {
  const client = useQueryClient();
  const bringIn = useMutation({
    mutationFn: (file: File) => upload<Schemas["Brought"]>("/api/studies/archive", file),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
  useTitle("Bring in a study");
  return (
    <main className="mx-auto w-full max-w-4xl px-6 py-8">
      <p className="text-sm">
        <Link to="/">Your studies</Link>
      </p>
      <h1 className="mt-1">Bring in a study</h1>
      {bringIn.data ? (
        <Brought brought={bringIn.data} />
      ) : (
        <>
          <p className="mt-2 mb-5 max-w-2xl">
            Choose an archive: a zip of CSV and Markdown files with <code className="font-mono">datapackage.json</code>{" "}
            at the top. It is checked as a whole before anything is written. The format is described in{" "}
            <code className="font-mono">docs/formats/archive.md</code>, which comes with Mossbank.
          </p>
          <FilePicker
            label={bringIn.isPending ? "Checking and loading …" : "Drop the zip file here, or choose it"}
            accept=".zip,application/zip"
            busy={bringIn.isPending}
            onFile={(file) => bringIn.mutate(file)}
          />
          {bringIn.isError && <Refusal error={bringIn.error} />}
        </>
      )}
    </main>
  );
}

function Refusal({ error }: { error: Error }) {
  const faults = error instanceof ApiProblem ? error.faults : [];
  return (
    <section className="mt-6">
      <Note tone="trouble" role="alert">
        {error.message}
      </Note>
      <FaultList caption="Faults in the archive" faults={faults} />
    </section>
  );
}

function Brought({ brought }: { brought: Schemas["Brought"] }) {
  return (
    <div className="mt-4 grid gap-4">
      <Note tone="good" role="status">
        “{brought.title}” is loaded.
      </Note>
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
      <p>
        <Link to={`/studies/${brought.studyId}/grading`} className={buttonLook("primary")}>
          Go to the study
        </Link>
      </p>
    </div>
  );
}
