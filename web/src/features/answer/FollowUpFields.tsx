import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Area } from "../../ui/Field";

type Turn = Schemas["FollowUp"];

type FollowUpFieldsProps = {
  turns: Turn[];
  /** What every candidate is told next. */
  prepared: string[];
  error: string | undefined;
  onTurns: (turns: Turn[]) => void;
};

/** Turns after the first reply. The prepared wording comes first; another is recorded as unequal. */
export function FollowUpFields({ turns, prepared, error, onTurns }: FollowUpFieldsProps) {
  const next = prepared[turns.length];
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Follow-ups</legend>
      {turns.map((turn, i) => (
        <div key={i} className="mb-3 grid gap-2 border-l-2 border-rule pl-3">
          <Area
            label={`What it was told, ${i + 1}`}
            hint={
              prepared.some((p) => p.trim() === turn.asked.trim())
                ? "As prepared for all."
                : "Of its own: this answer is marked as followed up unequally."
            }
            maxLength={LIMITS.FollowUp.asked}
            value={turn.asked}
            onChange={(e) => onTurns(turns.with(i, { ...turn, asked: e.target.value }))}
          />
          <Area
            label={`What it replied, ${i + 1}`}
            className="[&_textarea]:max-h-48"
            value={turn.reply}
            onChange={(e) => onTurns(turns.with(i, { ...turn, reply: e.target.value }))}
          />
          <p>
            <Button onClick={() => onTurns(turns.toSpliced(i, 1))}>Take out follow-up {i + 1}</Button>
          </p>
        </div>
      ))}
      {error && (
        <p role="alert" className="mb-2 text-sm text-clay">
          Follow-ups {error}.
        </p>
      )}
      <AddButton onAdd={() => onTurns([...turns, { asked: next ?? "", reply: "" }])}>
        {next === undefined ? "Add a follow-up of its own" : "Add the next prepared follow-up"}
      </AddButton>
    </fieldset>
  );
}
