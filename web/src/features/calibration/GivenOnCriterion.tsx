import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Area } from "../../ui/Field";
import { moment } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { GivenLevels, LevelChoice } from "../reconciliation";
import { type Source, useAgree, type Which } from "./api";

type Answer = Schemas["AnswerTalk"];
type Criterion = Schemas["AnchoredCriterion"];

const SOURCES: Record<Source, string> = { REFERENCE: "Reference", SETTLED: "Settled" };

type GivenOnCriterionProps = { answer: Answer; criterion: Criterion; which: Which };

/** The scale of a criterion: who gave what, at first and again, and where the answer should stand. */
export function GivenOnCriterion({ answer, criterion, which }: GivenOnCriterionProps) {
  const [saying, setSaying] = useState<Source>();
  const agreed = answer.agreed.filter((a) => a.criterion === criterion.key);
  const level = (levels: Schemas["GivenLevel"][]) => levels.find((l) => l.criterion === criterion.key)?.level;
  return (
    <section>
      <h2>What raters gave</h2>
      <GivenLevels
        question={criterion.question}
        levels={criterion.levels}
        nowWords="Again, after the talk:"
        raters={answer.raters.map((r) => {
          const [first, again] = [level(r.levels), level(r.after)];
          return {
            name: r.name,
            own: r.own,
            ...(first !== undefined && { level: first }),
            ...(again !== undefined && { now: again }),
          };
        })}
        noteOf={(at) =>
          agreed
            .filter((a) => a.level === at)
            .map((a) => (
              <p key={a.source} className="[overflow-wrap:anywhere]">
                <strong>{SOURCES[a.source]}</strong>{" "}
                <span className="text-ink-soft">
                  by {a.by}, {moment(a.at)}:
                </span>{" "}
                {a.reason}
              </p>
            ))
        }
      />
      {answer.leads && (answer.talking || answer.raters.length === 0) && (
        <div className="mt-2 flex flex-wrap gap-2">
          {answer.talking && <Button onClick={() => setSaying("SETTLED")}>Settle it …</Button>}
          <Button onClick={() => setSaying("REFERENCE")}>Note a reference …</Button>
        </div>
      )}
      {saying && (
        <AgreeDialog
          answer={answer}
          criterion={criterion}
          which={which}
          source={saying}
          onClose={() => setSaying(undefined)}
        />
      )}
    </section>
  );
}

type AgreeDialogProps = GivenOnCriterionProps & { source: Source; onClose: () => void };

function AgreeDialog({ answer, criterion, which, source, onClose }: AgreeDialogProps) {
  const agree = useAgree(which, answer.place);
  const known = answer.agreed.find((a) => a.criterion === criterion.key && a.source === source);
  const [level, setLevel] = useState(known?.level);
  const [reason, setReason] = useState(known?.reason ?? "");
  const send = (to?: Schemas["Agree"]) =>
    agree.mutate({ criterion: criterion.key, source, ...(to && { to }) }, { onSuccess: onClose });
  return (
    <Dialog
      title={source === "SETTLED" ? "Where should it stand?" : "What people who know gave it"}
      open
      onOpenChange={(open) => !open && onClose()}
    >
      <LevelChoice legend={criterion.name} levels={criterion.levels} value={level} onLevel={setLevel} />
      <Area
        label="Why"
        hint="Whoever comes in late is held against it. No grade changes."
        className="mt-3"
        required
        rows={3}
        maxLength={LIMITS.Agree.reason}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
      />
      <Trouble error={agree.error} className="mt-2" />
      <div className="mt-4 flex justify-end gap-2">
        {known && (
          <Button disabled={agree.isPending} onClick={() => send()}>
            Take it back
          </Button>
        )}
        <Button onClick={onClose}>Leave it</Button>
        <Button
          tone="primary"
          disabled={agree.isPending || level === undefined || reason.trim() === ""}
          onClick={() => level !== undefined && send({ level, reason })}
        >
          {source === "SETTLED" ? "Settle it" : "Note it"}
        </Button>
      </div>
    </Dialog>
  );
}
