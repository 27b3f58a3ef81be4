import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Area, Choice, Field, NumberField, Tick } from "../../ui/Field";
import { count } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import type { DraftInHand } from "../../ui/useDraft";
import { useStudy } from "../study";
import { useLookUpCommit } from "./api";
import type { Content } from "./CheckPage";
import { PageFields } from "./PageFields";
import { RunFields } from "./RunFields";
import { FilesFromMachine } from "./FilesFromMachine";

type CheckFieldsProps = { draft: DraftInHand<Content>; isSql: boolean };

/** All that a check asks, in the order in which it happens. */
export function CheckFields({ draft, isSql }: CheckFieldsProps) {
  const content = draft.value;
  const write = (change: Partial<Content>, group?: string) => draft.change({ ...content, ...change }, group);
  return (
    <div className="grid gap-6">
      <RepositoryFields content={content} onContent={(next, group) => draft.change(next, group)} />
      <LooseFields content={content} onContent={(next, group) => draft.change(next, group)} />
      <FileList
        legend="Files of the check"
        hint="Tests, data, a driver. They stand above an answer’s own; answers and candidates never see them."
        files={content.files}
        onFiles={(files, group) => write({ files }, group)}
      />
      <div className="grid gap-4 sm:grid-cols-2">
        <Area
          code
          label="Build"
          hint="A shell command; empty where nothing is built."
          maxLength={LIMITS.CheckContent.build}
          value={content.build}
          onChange={(e) => write({ build: e.target.value }, "build")}
        />
        <Area
          code
          label="Run"
          hint="What each run begins with; its arguments follow."
          maxLength={LIMITS.CheckContent.run}
          value={content.run}
          onChange={(e) => write({ run: e.target.value }, "run")}
        />
      </div>
      <RunFields runs={content.runs} isSql={isSql} onRuns={(runs, group) => write({ runs }, group)} />
      <TestFields content={content} onContent={(next, group) => draft.change(next, group)} />
      <PageFields content={content} onContent={(next, group) => draft.change(next, group)} />
      <Choice
        label="An answer that shows no code"
        className="max-w-md"
        value={content.withoutCode}
        options={WITHOUT_CODE}
        onValue={(withoutCode) => write({ withoutCode }, "withoutCode")}
      />
      <LimitFields limits={content.limits} onLimits={(limits) => write({ limits }, "limits")} />
    </div>
  );
}

type PartProps = { content: Content; onContent: (next: Content, group?: string) => void };

const WITHOUT_CODE: { value: Content["withoutCode"]; label: string }[] = [
  { value: "FAILS", label: "does not work: it was to bring some" },
  { value: "LEFT_OUT", label: "is not tried: the prompt asks for words" },
];

const REPOSITORY: Schemas["RepositoryOfCheck"] = { repository: "", commit: "", wanted: [] };

const isFullId = (commit: string) => /^[0-9a-f]{40}([0-9a-f]{24})?$/.test(commit);

function RepositoryFields({ content, onContent }: PartProps) {
  const { repository: written, ...rest } = content;
  // Without a commit there is nothing that could be saved yet.
  const [begun, setBegun] = useState<Schemas["RepositoryOfCheck"]>();
  const repository = written ?? begun;
  const write = (change: Partial<Schemas["RepositoryOfCheck"]>) => {
    const next = { ...REPOSITORY, ...repository, ...change };
    if (written || isFullId(next.commit)) {
      setBegun(undefined);
      onContent({ ...rest, tests: rest.tests ?? TESTS, repository: next }, "repository");
    } else {
      setBegun(next);
    }
  };
  const tick = (has: boolean) => {
    setBegun(has ? REPOSITORY : undefined);
    if (written) {
      onContent(rest);
    }
  };
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Repository</legend>
      <Tick
        checked={repository !== undefined}
        label="Answers change a whole repository"
        hint="Each is brought into a copy of it at one commit. Its tests are run before an answer and after it; the repository is only read."
        onTick={tick}
      />
      {begun && (
        <p role="status" className="mt-1 text-sm text-ink-soft">
          It is saved once a commit is found.
        </p>
      )}
      {repository && (
        <div className="mt-2 grid gap-3">
          <Field
            label="Where it is"
            hint="Its path below a folder that the server’s administrator allows."
            maxLength={LIMITS.RepositoryOfCheck.repository}
            value={repository.repository}
            onChange={(e) => write({ repository: e.target.value })}
          />
          <CommitField repository={repository} onCommit={(commit) => write({ commit })} />
          <Area
            label="Tests that must pass afterwards"
            hint="By name, one a line. Empty for all; others may fail as they did before."
            value={repository.wanted.join("\n")}
            onChange={(e) => write({ wanted: e.target.value.split("\n").filter((line) => line !== "") })}
          />
        </div>
      )}
    </fieldset>
  );
}

type CommitFieldProps = { repository: Schemas["RepositoryOfCheck"]; onCommit: (commit: string) => void };

/** A commit by its full id, which is looked up by a branch, a tag or a short one. */
function CommitField({ repository, onCommit }: CommitFieldProps) {
  const study = useStudy();
  const [name, setName] = useState("main");
  const lookUp = useLookUpCommit(study.id);
  const find = () =>
    lookUp.mutate(
      { repository: repository.repository, commit: name },
      { onSuccess: (listing) => onCommit(listing.commit) },
    );
  return (
    <div className="grid gap-3 sm:grid-cols-[1fr_12rem_auto] sm:items-end">
      <Field
        label="Commit, its full id"
        maxLength={LIMITS.RepositoryOfCheck.commit}
        value={repository.commit}
        onChange={(e) => onCommit(e.target.value.trim())}
      />
      <Field
        label="Branch, tag or short id"
        maxLength={LIMITS.GitPlace.commit}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button disabled={name.trim() === "" || lookUp.isPending} onClick={find}>
        Look it up
      </Button>
      <p role="status" className="text-sm text-ink-soft empty:hidden sm:col-span-3">
        {lookUp.data && `${count(lookUp.data.files.length, "file", "files")} at that commit.`}
      </p>
      <Trouble error={lookUp.error} className="sm:col-span-3" />
    </div>
  );
}

const LOOSE = { path: "answer.txt", before: "", after: "", importsFirst: false };

function LooseFields({ content, onContent }: PartProps) {
  const { loose, ...rest } = content;
  const write = (change: Partial<Schemas["LooseRule"]>) =>
    onContent({ ...rest, loose: { ...LOOSE, ...loose, ...change } }, "loose");
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Loose code</legend>
      <p className="mb-2 text-sm text-ink-soft">
        Differences and whole files go where they belong. Code that belongs to no file goes into this one; what stands
        above and below goes around code that declares no type of its own.
      </p>
      <Tick
        checked={loose !== undefined}
        label="There is a place for it"
        onTick={(has) => onContent(has ? { ...rest, loose: LOOSE } : rest)}
      />
      {loose && (
        <div className="mt-2 grid gap-3">
          <Field
            label="File"
            hint="A star in it stands for the first type that the code declares."
            maxLength={LIMITS.LooseRule.path}
            value={loose.path}
            onChange={(e) => write({ path: e.target.value })}
          />
          <div className="grid gap-3 sm:grid-cols-2">
            <Area code label="Above it" value={loose.before} onChange={(e) => write({ before: e.target.value })} />
            <Area code label="Below it" value={loose.after} onChange={(e) => write({ after: e.target.value })} />
          </div>
          <Tick
            checked={loose.importsFirst}
            label="Lines that import go to the top"
            onTick={(importsFirst) => write({ importsFirst })}
          />
        </div>
      )}
    </fieldset>
  );
}

type FileListProps = {
  legend: string;
  hint?: string;
  files: Schemas["CheckFile"][];
  onFiles: (files: Schemas["CheckFile"][], group?: string) => void;
};

/** Files by path and text. */
export function FileList({ legend, hint, files, onFiles }: FileListProps) {
  return (
    <fieldset>
      <legend className="mb-1 font-medium">{legend}</legend>
      {hint !== undefined && <p className="mb-2 text-sm text-ink-soft">{hint}</p>}
      <ol className="grid gap-3">
        {files.map((file, i) => (
          <li key={i} className="grid gap-2 border-l-2 border-edge pl-3">
            <div className="flex items-end gap-3">
              <Field
                className="grow"
                label={`File ${i + 1}: path`}
                maxLength={LIMITS.CheckFile.path}
                value={file.path}
                onChange={(e) => onFiles(files.with(i, { ...file, path: e.target.value }), `file ${i}`)}
              />
              <Button aria-label={`Take out file ${i + 1}`} onClick={() => onFiles(files.toSpliced(i, 1))}>
                Take out
              </Button>
            </div>
            <Area
              code
              label={`File ${i + 1}: text`}
              maxLength={LIMITS.CheckFile.text}
              value={file.text}
              onChange={(e) => onFiles(files.with(i, { ...file, text: e.target.value }), `file text ${i}`)}
            />
          </li>
        ))}
      </ol>
      <div className="mt-2">
        <AddButton onAdd={() => onFiles([...files, { path: `file-${files.length + 1}`, text: "" }])}>
          Add a file
        </AddButton>
        <FilesFromMachine files={files} onFiles={(all) => onFiles(all)} />
      </div>
    </fieldset>
  );
}

const TESTS: Schemas["TestsOfCheck"] = { command: "true", format: "JUNIT_XML", reports: "reports" };

function TestFields({ content, onContent }: PartProps) {
  const { tests, ...rest } = content;
  const write = (change: Partial<Schemas["TestsOfCheck"]>) =>
    onContent({ ...rest, tests: { ...TESTS, ...tests, ...change } }, "tests");
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Tests</legend>
      <Tick
        checked={tests !== undefined}
        label="A command runs tests"
        hint="Each test of its reports is told by itself."
        onTick={(has) => onContent(has ? { ...rest, tests: TESTS } : rest)}
      />
      {tests && (
        <div className="mt-2 grid gap-3">
          <Area
            code
            label="Test command"
            maxLength={LIMITS.TestsOfCheck.command}
            value={tests.command}
            onChange={(e) => write({ command: e.target.value })}
          />
          <div className="grid gap-3 sm:grid-cols-2">
            <Choice
              label="Format of its reports"
              value={tests.format}
              options={[
                { value: "JUNIT_XML", label: "JUnit XML" },
                { value: "TAP", label: "TAP" },
              ]}
              onValue={(format) => write({ format })}
            />
            <Field
              label="Where they are"
              hint="A file or a folder; empty if the command writes the report itself."
              maxLength={LIMITS.TestsOfCheck.reports}
              value={tests.reports}
              onChange={(e) => write({ reports: e.target.value })}
            />
          </div>
        </div>
      )}
    </fieldset>
  );
}

type LimitFieldsProps = { limits: Schemas["CheckLimits"]; onLimits: (limits: Schemas["CheckLimits"]) => void };

function LimitFields({ limits, onLimits }: LimitFieldsProps) {
  const field = (name: keyof Schemas["CheckLimits"], label: string) => (
    <NumberField
      label={label}
      value={limits[name]}
      onNumber={(value) => value !== undefined && onLimits({ ...limits, [name]: value })}
    />
  );
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Limits of each step</legend>
      <div className="grid gap-3 sm:grid-cols-4">
        {field("seconds", "Seconds")}
        {field("memoryMb", "Memory in MB")}
        {field("processes", "Processes")}
        {field("outputKb", "Output in kB")}
      </div>
    </fieldset>
  );
}
