import { useEffect, useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Area, Choice } from "../../ui/Field";
import { Trouble } from "../../ui/Trouble";
import { usePropose } from "./api";

type ProposeAnchorProps = {
  studyId: string;
  criterion: { key: string; name: string; levels: Schemas["AnchoredLevel"][] };
  kindId: string;
  kind: string;
};

/** Opens the window for a proposal. */
const KEY = "p";

/** Whether a key would be written into something. */
const isWriting = (target: EventTarget | null) =>
  target instanceof Element && target.closest("input, textarea, select, [role=dialog]") !== null;

/** Another wording of an anchor comes out of a talk with one key, and goes into the rubric's next version. */
export function ProposeAnchor(props: ProposeAnchorProps) {
  const [asking, setAsking] = useState(false);
  const [told, setTold] = useState("");
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === KEY && !event.ctrlKey && !event.metaKey && !event.altKey && !isWriting(event.target)) {
        event.preventDefault();
        setAsking(true);
      }
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, []);
  return (
    <div className="mt-3">
      <Button onClick={() => setAsking(true)} aria-keyshortcuts={KEY}>
        Propose an anchor …
      </Button>
      <span className="ml-2 text-sm text-ink-soft">or the key {KEY}</span>
      <p role="status" className="text-sm">
        {told}
      </p>
      {asking && <ProposeDialog {...props} onClose={() => setAsking(false)} onTold={setTold} />}
    </div>
  );
}

type ProposeDialogProps = ProposeAnchorProps & { onClose: () => void; onTold: (words: string) => void };

function ProposeDialog({ studyId, criterion, kindId, kind, onClose, onTold }: ProposeDialogProps) {
  const propose = usePropose(studyId);
  const [id] = useState(() => crypto.randomUUID());
  const [level, setLevel] = useState(criterion.levels.length - 1);
  const [written, setWritten] = useState<Record<number, string>>({});
  const [why, setWhy] = useState("");
  const present = criterion.levels[level]?.anchor ?? "";
  const words = written[level] ?? present;
  const send = () =>
    propose.mutate(
      { id, criterion: criterion.key, kindId, level, words, why },
      {
        onSuccess: () => {
          onTold("Proposed. The lead finds it with the rubric.");
          onClose();
        },
      },
    );
  return (
    <Dialog title={`An anchor of ${criterion.name.toLowerCase()}`} open onOpenChange={(open) => !open && onClose()}>
      <p className="text-sm text-ink-soft">
        For {kind.toLowerCase()}. What raters grade by stays as it is; proposals go into the rubric’s next version.
      </p>
      <LevelField levels={criterion.levels} value={level} onLevel={setLevel} />
      <Area
        label="What it should say"
        hint={present === "" ? "Nothing stands there yet." : undefined}
        className="mt-3"
        rows={3}
        required
        maxLength={LIMITS.ProposeAnchor.words}
        value={words}
        onChange={(e) => setWritten({ ...written, [level]: e.target.value })}
      />
      <Area
        label="Why"
        className="mt-3"
        rows={2}
        maxLength={LIMITS.ProposeAnchor.why}
        value={why}
        onChange={(e) => setWhy(e.target.value)}
      />
      <Trouble error={propose.error} className="mt-2" />
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button
          tone="primary"
          disabled={propose.isPending || words.trim() === "" || words.trim() === present.trim()}
          onClick={send}
        >
          Propose it
        </Button>
      </div>
    </Dialog>
  );
}

type LevelFieldProps = { levels: Schemas["AnchoredLevel"][]; value: number; onLevel: (level: number) => void };

function LevelField({ levels, value, onLevel }: LevelFieldProps) {
  return (
    <Choice
      label="Level"
      className="mt-3 w-64"
      value={String(value)}
      options={levels.map((l) => ({
        value: String(l.level),
        label: l.name === String(l.level) ? l.name : `${l.level}, ${l.name}`,
      }))}
      onValue={(level) => onLevel(Number(level))}
    />
  );
}
