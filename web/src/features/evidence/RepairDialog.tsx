import { lazy, Suspense, useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Choice } from "../../ui/Field";
import { count } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { type Came, TrialItems } from "./TrialItems";

export type ChangedFile = Schemas["ChangedFile"];

/** A repair that was just tried. */
export type Tried = { repair: { id: string; lines: number }; result: Came };

const CodeEditor = lazy(async () => ({ default: (await import("../../ui/CodeEditor")).CodeEditor }));

type RepairDialogProps = {
  title: string;
  /** As they are; undefined while they are fetched. */
  files: ChangedFile[] | undefined;
  /** Why they could not be fetched. */
  failure: Error | null;
  onTry: (changed: ChangedFile[]) => Promise<Tried>;
  /** Where a picture of its page is, by the repair and its place. */
  pictureAt: (repairId: string, place: number) => string;
  onClose: () => void;
};

/** Changing an answer's code so that it can be tried: the answer stays as it is, and each try is kept with its lines. */
export function RepairDialog({ title, files, failure, onTry, pictureAt, onClose }: RepairDialogProps) {
  return (
    <Dialog wide open title={title} onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3 text-sm text-ink-soft">
        The answer stays as it is, and is graded as it is. Each try is kept with the lines that it changed; whoever
        grades the answer sees it, without your name.
      </p>
      <Trouble error={failure} />
      {files === undefined && !failure && <p role="status">Fetching its code …</p>}
      {files?.length === 0 && <p>There is no code in it that could be changed.</p>}
      {files !== undefined && files.length > 0 && <Editing files={files} onTry={onTry} pictureAt={pictureAt} />}
    </Dialog>
  );
}

type EditingProps = Pick<RepairDialogProps, "onTry" | "pictureAt"> & { files: ChangedFile[] };

function Editing({ files, onTry, pictureAt }: EditingProps) {
  const [path, setPath] = useState(files[0]?.path ?? "");
  const [texts, setTexts] = useState<Record<string, string>>({});
  const trial = useTrying(onTry);
  const { tried } = trial;
  const changed = files.flatMap((f) => {
    const text = texts[f.path];
    return text === undefined || text === f.text ? [] : [{ path: f.path, text }];
  });
  const shown = texts[path] ?? files.find((f) => f.path === path)?.text ?? "";
  return (
    <>
      {files.length > 1 && (
        <Choice
          label="File"
          value={path}
          options={files.map((f) => ({ value: f.path, label: f.path }))}
          onValue={setPath}
          className="mb-2"
        />
      )}
      <Suspense fallback={<p role="status">Fetching the editor …</p>}>
        <CodeEditor
          key={path}
          label={`Code of ${path}`}
          text={shown}
          onText={(text) => setTexts((before) => ({ ...before, [path]: text }))}
        />
      </Suspense>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button
          tone="primary"
          disabled={changed.length === 0 || trial.isPending}
          onClick={() => void trial.run(changed)}
        >
          {trial.isPending ? "Trying …" : "Try it so"}
        </Button>
        <span className="text-sm text-ink-soft">
          {changed.length === 0
            ? "Nothing is changed yet."
            : `${count(changed.length, "file is", "files are")} changed.`}
        </span>
      </div>
      <Trouble error={trial.error} className="mt-3" />
      {tried && !trial.isPending && (
        <div className="mt-4 border-t border-rule pt-3" role="status">
          <p className="mb-2 font-medium">After a repair of {count(tried.repair.lines, "line", "lines")}:</p>
          <TrialItems result={tried.result} pictureAt={(place) => pictureAt(tried.repair.id, place)} />
        </div>
      )}
    </>
  );
}

/** One try at a time, with how it ended. */
function useTrying(onTry: RepairDialogProps["onTry"]) {
  const [state, setState] = useState<{ isPending: boolean; error: Error | null; tried?: Tried }>({
    isPending: false,
    error: null,
  });
  return {
    ...state,
    run: async (changed: ChangedFile[]) => {
      setState({ isPending: true, error: null });
      try {
        const tried = await onTry(changed);
        setState({ isPending: false, error: null, tried });
      } catch (error) {
        setState({ isPending: false, error: error instanceof Error ? error : new Error("It could not be tried.") });
      }
    },
  };
}
