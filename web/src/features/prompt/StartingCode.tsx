import { type DragEvent, type ReactNode, useRef, useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { Area, Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { useStudy } from "../study";
import { readZip } from "./api";
import { GitPicker } from "./GitPicker";

type File_ = Schemas["StartingFile"];
type Origin = Schemas["Origin"];

type StartingCodeProps = {
  files: File_[];
  origin: Origin | undefined;
  onChange: (files: File_[], origin: Origin | undefined, group?: string) => void;
};

/** New files over old ones of the same path, the rest kept. */
export function merged(old: File_[], taken: File_[]): File_[] {
  const paths = new Set(taken.map((f) => f.path));
  return [...old.filter((f) => !paths.has(f.path)), ...taken];
}

/** The files that a prompt is about: typed, dropped in, from a zip, or from a git repository. */
export function StartingCode({ files, origin, onChange }: StartingCodeProps) {
  const study = useStudy();
  const [message, setMessage] = useState<string>();

  const take = async (dropped: File[]) => {
    setMessage(undefined);
    const { taken, leftOut } = await readFiles(study.id, dropped);
    if (taken.length > 0) {
      onChange(merged(files, taken), origin);
    }
    if (leftOut.length > 0) {
      setMessage(`Left out: ${leftOut.join("; ")}.`);
    }
  };

  return (
    <fieldset>
      <legend className="mb-1 font-medium">Starting code</legend>
      <p className="mb-1.5 text-sm text-ink-soft">
        The files that the prompt is about, as every candidate gets them and every rater can look them up.
        {origin && ` From ${origin.repository} at ${origin.commit.slice(0, 12)}.`}
      </p>
      <div className="grid gap-2">
        {files.map((file, i) => (
          <FileFields
            key={i}
            number={i + 1}
            file={file}
            onChange={(next, group) => onChange(files.with(i, next), origin, `${group} ${i}`)}
            onTakeOut={() => onChange(files.toSpliced(i, 1), files.length === 1 ? undefined : origin)}
          />
        ))}
      </div>
      <DropPlace onFiles={(dropped) => void take(dropped)}>
        <Button onClick={() => onChange([...files, { path: "", text: "" }], origin)}>Type a file</Button>
        <GitPicker onTaken={(code) => onChange(merged(files, code.code.files), code.origin)} />
      </DropPlace>
      {message && (
        <Note tone="caution" role="status" className="mt-2">
          {message}
        </Note>
      )}
    </fieldset>
  );
}

type FileFieldsProps = {
  number: number;
  file: File_;
  onChange: (next: File_, group: string) => void;
  onTakeOut: () => void;
};

function FileFields({ number, file, onChange, onTakeOut }: FileFieldsProps) {
  const [open, setOpen] = useState(file.text === "");
  return (
    <div className="border-l-2 border-edge pl-3">
      <div className="flex items-start gap-2">
        <Field
          label={`Path of file ${number}`}
          labelHidden
          placeholder="src/main/java/Buoy.java"
          className="flex-1 font-mono text-sm"
          maxLength={LIMITS.StartingFile.path}
          value={file.path}
          onChange={(e) => onChange({ ...file, path: e.target.value }, "path")}
        />
        <Button aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Fold" : `Show, ${file.text.split("\n").length} lines`}
        </Button>
        <Button aria-label={`Take out file ${number}`} onClick={onTakeOut}>
          Take out
        </Button>
      </div>
      {open && (
        <Area
          label={`Text of file ${number}`}
          labelHidden
          code
          className="mt-1.5 max-h-96 overflow-y-auto"
          value={file.text}
          onChange={(e) => onChange({ ...file, text: e.target.value }, "file text")}
        />
      )}
    </div>
  );
}

/** Reads texts and zips; what is neither is left out, with why. */
async function readFiles(studyId: string, files: File[]): Promise<{ taken: File_[]; leftOut: string[] }> {
  const taken: File_[] = [];
  const leftOut: string[] = [];
  for (const file of files) {
    if (/\.zip$/i.test(file.name)) {
      try {
        const code = await readZip(studyId, file);
        taken.push(...code.files);
        leftOut.push(...code.leftOut);
      } catch (error) {
        leftOut.push(
          `${file.name}: ${error instanceof ApiProblem ? (error.errors[0]?.message ?? error.message) : "could not be sent"}`,
        );
      }
    } else {
      const text = await file.text();
      if (text.includes("\0") || text.includes("\uFFFD") || file.size > 1 << 20) {
        leftOut.push(`${file.name}: not a text of at most 1 MB in UTF-8`);
      } else {
        taken.push({ path: file.name, text });
      }
    }
  }
  return { taken, leftOut };
}

type DropPlaceProps = { onFiles: (files: File[]) => void; children: ReactNode };

function DropPlace({ onFiles, children }: DropPlaceProps) {
  const [over, setOver] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    onFiles([...event.dataTransfer.files]);
  };
  return (
    <div
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      className={classes(
        "mt-2 flex flex-wrap items-center gap-2 border border-dashed p-3",
        over ? "border-heather bg-heather-wash" : "border-edge",
      )}
    >
      <Button onClick={() => chooser.current?.click()}>Choose files or a zip</Button>
      <input
        ref={chooser}
        type="file"
        multiple
        aria-label="Files or a zip of starting code"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
      {children}
      <span className="text-sm text-ink-soft">or drop them here</span>
    </div>
  );
}
