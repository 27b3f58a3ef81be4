import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Area, Choice, Field, NumberField, Tick } from "../../ui/Field";
import { Lines } from "../../ui/Lines";
import { FileList } from "./CheckFields";

type Run = Schemas["RunOfCheck"];
type TextAfter = Schemas["TextAfter"];
type FileAfter = Schemas["FileAfter"];

type RunFieldsProps = { runs: Run[]; isSql: boolean; onRuns: (runs: Run[], group?: string) => void };

const FRESH: Run = { name: "", arguments: [], input: "", before: [], status: 0, after: [], elsewhere: "ALLOWED" };

/** What is run, and what must come out of each run. */
export function RunFields({ runs, isSql, onRuns }: RunFieldsProps) {
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Runs</legend>
      <p className="mb-2 text-sm text-ink-soft">Each begins with what the build left, and sees nothing of another.</p>
      <ol className="grid gap-5">
        {runs.map((run, i) => (
          <li key={i} className="grid gap-3 border-l-2 border-edge pl-3">
            <OneRun
              run={run}
              number={i + 1}
              isSql={isSql}
              onRun={(next, group) => onRuns(runs.with(i, next), `run ${i} ${group}`)}
              onTakeOut={() => onRuns(runs.toSpliced(i, 1))}
            />
          </li>
        ))}
      </ol>
      <div className="mt-2">
        <AddButton onAdd={() => onRuns([...runs, { ...FRESH, name: `Run ${runs.length + 1}` }])}>Add a run</AddButton>
      </div>
    </fieldset>
  );
}

type OneRunProps = {
  run: Run;
  number: number;
  isSql: boolean;
  onRun: (run: Run, group: string) => void;
  onTakeOut: () => void;
};

function OneRun({ run, number, isSql, onRun, onTakeOut }: OneRunProps) {
  const write = (change: Partial<Run>, group: string) => onRun({ ...run, ...change }, group);
  return (
    <>
      <div className="flex items-end gap-3">
        <Field
          className="grow"
          label={`Run ${number}: name`}
          maxLength={LIMITS.RunOfCheck.name}
          value={run.name}
          onChange={(e) => write({ name: e.target.value }, "name")}
        />
        <NumberField
          className="w-32"
          label="Ends with"
          value={run.status}
          onNumber={(status) => status !== undefined && write({ status }, "status")}
        />
        <Button aria-label={`Take out run ${number}`} onClick={onTakeOut}>
          Take out
        </Button>
      </div>
      {!isSql && (
        <>
          <Lines
            legend="Arguments"
            one="Argument"
            values={run.arguments}
            onChange={(values, group) => write({ arguments: values }, `arguments ${group ?? ""}`)}
          />
          <Area
            code
            label="Standard input"
            value={run.input}
            onChange={(e) => write({ input: e.target.value }, "input")}
          />
        </>
      )}
      <Output run={run} onRun={onRun} />
      {isSql ? <Rows run={run} onRun={onRun} /> : <Around run={run} onRun={onRun} />}
    </>
  );
}

type PartProps = { run: Run; onRun: (run: Run, group: string) => void };

const MATCHES: { value: TextAfter["match"]; label: string }[] = [
  { value: "EXACT", label: "to the character" },
  { value: "WORDS", label: "words, whatever stands between" },
  { value: "NUMBERS", label: "words, numbers within a tolerance" },
  { value: "PATTERN", label: "as a regular expression" },
];

function Output({ run, onRun }: PartProps) {
  const { output, ...rest } = run;
  const write = (change: Partial<TextAfter>) =>
    onRun({ ...rest, output: { match: "EXACT", text: "", tolerance: 0, ...output, ...change } }, "output");
  return (
    <div>
      <Tick
        checked={output !== undefined}
        label="Its output matters"
        onTick={(does) => (does ? write({}) : onRun(rest, "output"))}
      />
      {output && (
        <div className="mt-2 grid gap-3 sm:grid-cols-[16rem_1fr]">
          <div className="grid content-start gap-3">
            <Choice label="How alike" value={output.match} options={MATCHES} onValue={(match) => write({ match })} />
            {output.match === "NUMBERS" && (
              <NumberField
                label="Tolerance"
                hint="As a part of the number, or as such below 1."
                value={output.tolerance}
                onNumber={(tolerance) => tolerance !== undefined && write({ tolerance })}
              />
            )}
          </div>
          <Area code label="Output" value={output.text} onChange={(e) => write({ text: e.target.value })} />
        </div>
      )}
    </div>
  );
}

/** A file as it must be, compared as it was before where its place says how. */
const expected =
  (before: FileAfter[]) =>
  (file: Schemas["CheckFile"], i: number): FileAfter => ({
    path: file.path,
    text: { ...(before[i]?.text ?? { match: "EXACT", tolerance: 0 }), text: file.text },
  });

/** Files before and after. */
function Around({ run, onRun }: PartProps) {
  const there = run.after.filter((f) => f.text !== undefined);
  const absent = run.after.filter((f) => f.text === undefined);
  const write = (files: FileAfter[], gone: FileAfter[], group: string) =>
    onRun({ ...run, after: [...files, ...gone] }, group);
  return (
    <details>
      <summary>Files before and after</summary>
      <div className="mt-2 grid gap-4">
        <FileList
          legend="Laid there first"
          files={run.before}
          onFiles={(before, group) => onRun({ ...run, before }, `before ${group ?? ""}`)}
        />
        <FileList
          legend="There afterwards"
          files={there.map((f) => ({ path: f.path, text: f.text?.text ?? "" }))}
          onFiles={(files, group) => write(files.map(expected(there)), absent, `after ${group ?? ""}`)}
        />
        <Lines
          legend="Not there afterwards"
          one="File"
          values={absent.map((f) => f.path)}
          onChange={(paths, group) =>
            write(
              there,
              paths.map((path) => ({ path })),
              `absent ${group ?? ""}`,
            )
          }
        />
        <Tick
          checked={run.elsewhere === "FORBIDDEN"}
          label="It must write no other file"
          onTick={(must) => onRun({ ...run, elsewhere: must ? "FORBIDDEN" : "ALLOWED" }, "elsewhere")}
        />
      </div>
    </details>
  );
}

/** Rows as they must be afterwards. */
function Rows({ run, onRun }: PartProps) {
  const { rows, ...rest } = run;
  const write = (change: Partial<Schemas["RowsAfter"]>) =>
    onRun({ ...rest, rows: { query: "select 1 as one", rows: "one\n1\n", order: "ANY", ...rows, ...change } }, "rows");
  return (
    <div>
      <Tick
        checked={rows !== undefined}
        label="Rows afterwards matter"
        onTick={(they) => (they ? write({}) : onRun(rest, "rows"))}
      />
      {rows && (
        <div className="mt-2 grid gap-3 sm:grid-cols-2">
          <Area code label="Query" value={rows.query} onChange={(e) => write({ query: e.target.value })} />
          <Area
            code
            label="Its rows"
            hint="Comma-separated, with a line of names above."
            value={rows.rows}
            onChange={(e) => write({ rows: e.target.value })}
          />
          <Tick
            checked={rows.order === "AS_GIVEN"}
            label="In this order"
            onTick={(given) => write({ order: given ? "AS_GIVEN" : "ANY" })}
          />
        </div>
      )}
    </div>
  );
}
