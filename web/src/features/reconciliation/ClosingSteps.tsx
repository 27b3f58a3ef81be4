import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Choice } from "../../ui/Field";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { Trouble } from "../../ui/Trouble";
import { type Closing, mayLookAt, useAskLook, useClose } from "./api";
import { LevelChoice } from "./LevelChoice";

type Split = Schemas["SplitPage"];

/** How the lead may end a talk. */
export function ClosingSteps({ split }: { split: Split }) {
  const [asking, setAsking] = useState<Closing["step"] | "look">();
  const close = () => setAsking(undefined);
  return (
    <section>
      <h2>Closing it</h2>
      <p className="mb-2 text-sm text-ink-soft">
        {split.state === "OPEN"
          ? "It closes by itself once all stand at one level. What you do here stays on record."
          : "Opening it again keeps what was said."}
      </p>
      <div className="flex flex-wrap gap-2">
        {split.state === "OPEN" ? (
          <>
            <Button onClick={() => setAsking("settle")}>Settle it …</Button>
            <Button onClick={() => setAsking("look")}>Ask for a blind look …</Button>
            <Button onClick={() => setAsking("leave-open")}>Leave it open …</Button>
          </>
        ) : (
          <Button onClick={() => setAsking("open-again")}>Open it again …</Button>
        )}
      </div>
      {asking === "look" && <LookDialog split={split} onClose={close} />}
      {asking === "settle" && <SettleDialog split={split} onClose={close} />}
      {(asking === "leave-open" || asking === "open-again") && (
        <StepDialog split={split} step={asking} onClose={close} />
      )}
    </section>
  );
}

type DialogProps = { split: Split; onClose: () => void };

/** The middle of where raters stand, or of what they gave. */
function middle(split: Split): number {
  const levels = split.raters.flatMap((r) => r.stances.at(-1)?.level ?? r.level ?? []).sort((a, b) => a - b);
  return levels[Math.floor((levels.length - 1) / 2)] ?? 0;
}

function SettleDialog({ split, onClose }: DialogProps) {
  const settle = useClose(split.studyId, split.id);
  const [level, setLevel] = useState(() => middle(split));
  return (
    <ReasonDialog
      title="Settle this split?"
      maxLength={LIMITS.Settle.reason}
      action={`Settle at ${level}`}
      busy={settle.isPending}
      error={settle.error?.message}
      onReason={(reason) => settle.mutate({ step: "settle", level, reason }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <LevelChoice legend="At which level" levels={split.criterion.levels} value={level} onLevel={setLevel} />
      <p>Grades stay as they were given. The settled one stands beside them, and decides nothing by itself.</p>
    </ReasonDialog>
  );
}

const STEPS = {
  "leave-open": {
    title: "Leave this split open?",
    action: "Leave it open",
    limit: LIMITS.LeaveOpen.reason,
    words: "The talk ends without a settled grade, and counts as a split that has none.",
  },
  "open-again": {
    title: "Open this split again?",
    action: "Open it again",
    limit: LIMITS.OpenSplitAgain.reason,
    words: "Raters may go on talking. A settled grade no longer stands.",
  },
} as const;

function StepDialog({ split, step, onClose }: DialogProps & { step: keyof typeof STEPS }) {
  const close = useClose(split.studyId, split.id);
  const { title, action, limit, words } = STEPS[step];
  return (
    <ReasonDialog
      title={title}
      maxLength={limit}
      action={action}
      busy={close.isPending}
      error={close.error?.message}
      onReason={(reason) => close.mutate({ step, reason }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <p>{words}</p>
    </ReasonDialog>
  );
}

function LookDialog({ split, onClose }: DialogProps) {
  const free = useQuery(mayLookAt(split.studyId, split.id));
  const ask = useAskLook(split.studyId, split.id);
  const [chosen, setChosen] = useState("");
  const raterId = chosen || (free.data?.[0]?.raterId ?? "");
  return (
    <Dialog title="Ask for a blind look" open onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">
        Somebody who has not graded this answer reads it without seeing any grade, and gives one. The median of all
        stands then.
      </p>
      {free.data?.length === 0 ? (
        <p className="text-ink-soft">
          Every rater has a sheet with this answer, wrote it, or was asked already. A rater who is added could be asked.
        </p>
      ) : (
        <Choice
          label="Who"
          value={raterId}
          options={(free.data ?? []).map((r) => ({ value: r.raterId, label: r.name }))}
          onValue={setChosen}
        />
      )}
      <Trouble error={ask.error ?? free.error} className="mt-2" />
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button
          tone="primary"
          disabled={ask.isPending || raterId === ""}
          onClick={() => ask.mutate(raterId, { onSuccess: onClose })}
        >
          Ask
        </Button>
      </div>
    </Dialog>
  );
}
