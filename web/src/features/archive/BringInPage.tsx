import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { Link } from "react-router";
import { ApiProblem, type Fault, type Schemas, upload } from "../../api/client";
import { buttonLook } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { CopyButton } from "../../ui/CopyButton";
import { Note } from "../../ui/Note";
import { Table } from "../../ui/Table";
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
          <FilePicker busy={bringIn.isPending} onFile={(file) => bringIn.mutate(file)} />
          {bringIn.isError && <Refusal error={bringIn.error} />}
        </>
      )}
    </main>
  );
}

function FilePicker({ busy, onFile }: { busy: boolean; onFile: (file: File) => void }) {
  const id = useId();
  const [over, setOver] = useState(false);
  return (
    <div
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        const file = e.dataTransfer.files[0];
        if (file) {
          onFile(file);
        }
      }}
      className={classes(
        "border-2 border-dashed p-8 text-center",
        over ? "border-heather bg-heather-wash" : "border-edge",
      )}
    >
      <label htmlFor={id} className="font-medium">
        {busy ? "Checking and loading …" : "Drop the zip file here, or choose it"}
      </label>
      <input
        id={id}
        type="file"
        accept=".zip,application/zip"
        disabled={busy}
        className="mx-auto mt-3 block"
        onChange={(e) => {
          const file = e.target.files?.[0];
          // The same file, mended, may be chosen again.
          e.target.value = "";
          if (file) {
            onFile(file);
          }
        }}
      />
    </div>
  );
}

function Refusal({ error }: { error: Error }) {
  const faults = error instanceof ApiProblem ? error.faults : [];
  return (
    <section className="mt-6">
      <Note tone="trouble" role="alert">
        {error.message}
      </Note>
      {faults.length > 0 && (
        <>
          <div className="mt-4 mb-1 flex items-baseline">
            <h2>What to mend</h2>
            <span className="ml-auto" />
            <CopyButton label="Copy the list" text={faults.map(faultLine).join("\n")} />
          </div>
          <Table
            caption="Faults in the archive"
            rows={faults.map((fault, i) => ({ ...fault, i }))}
            rowKey={(f) => String(f.i)}
            columns={[
              {
                key: "file",
                head: "File",
                rowHeader: true,
                sortBy: (f) => f.file,
                cell: (f) => <code className="font-mono text-sm break-all">{f.file}</code>,
              },
              { key: "line", head: "Line", align: "right", cell: (f) => f.line ?? "" },
              { key: "field", head: "Field", cell: (f) => <code className="font-mono text-sm">{f.field}</code> },
              { key: "expected", head: "Expected", cell: (f) => f.expected },
              { key: "found", head: "Found", cell: (f) => <span className="break-all">{f.found ?? "nothing"}</span> },
            ]}
          />
        </>
      )}
    </section>
  );
}

function faultLine(fault: Fault): string {
  const place = [fault.file, fault.line && `line ${fault.line}`, fault.field].filter(Boolean).join(", ");
  return `${place}: expected ${fault.expected}; found ${fault.found ?? "nothing"}`;
}

function Brought({ brought }: { brought: Schemas["Brought"] }) {
  return (
    <div className="mt-4 grid gap-4">
      <Note tone="good" role="status">
        “{brought.title}” is loaded, and its round is open.
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
