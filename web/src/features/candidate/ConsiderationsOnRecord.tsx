import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { useStudy } from "../study";
import { useConsider } from "./api";
import { Considerations } from "./Considerations";
import { DECIDERS, SIGNS } from "./words";

type Candidate = Schemas["CandidateView"];

/** Facts that no grade covers, once raters grade: changed with a reason that stays on record, and not once the round is closed. */
export function ConsiderationsOnRecord({ candidate }: { candidate: Candidate }) {
  const study = useStudy();
  const [changed, setChanged] = useState<Schemas["Consideration"][]>();
  if (changed !== undefined) {
    return (
      <Changing candidate={candidate} changed={changed} onChange={setChanged} onDone={() => setChanged(undefined)} />
    );
  }
  const own = candidate.content.considerations;
  return (
    <section className="mt-5">
      <h2 className="mb-1 text-base">Considerations</h2>
      {own.length === 0 ? (
        <p className="text-ink-soft">None.</p>
      ) : (
        <ul className="grid gap-1">
          {own.map((c) => (
            <li key={c.sign + c.text}>
              <span className="text-ink-soft">
                {SIGNS[c.sign]}
                {c.about !== undefined && `, ${DECIDERS[c.about]}`}:
              </span>{" "}
              {c.text}
            </li>
          ))}
        </ul>
      )}
      {study.stage === "CLOSED" ? (
        <p className="mt-2 text-sm text-ink-soft">The round is closed. They can be changed once it is opened again.</p>
      ) : (
        <Button className="mt-2" onClick={() => setChanged(own)}>
          Change them …
        </Button>
      )}
    </section>
  );
}

type ChangingProps = {
  candidate: Candidate;
  changed: Schemas["Consideration"][];
  onChange: (changed: Schemas["Consideration"][]) => void;
  onDone: () => void;
};

function Changing({ candidate, changed, onChange, onDone }: ChangingProps) {
  const [asking, setAsking] = useState(false);
  const consider = useConsider(useStudy().id, candidate.id);
  const considerations = changed.filter((c) => c.text.trim() !== "");
  return (
    <>
      <Considerations considerations={changed} onChange={onChange} />
      <p className="mt-3 flex gap-2">
        <Button tone="primary" onClick={() => setAsking(true)}>
          Keep the change …
        </Button>
        <Button onClick={onDone}>Leave them as they were</Button>
      </p>
      {asking && (
        <ReasonDialog
          title="Change what is considered?"
          maxLength={LIMITS.Consider.reason}
          action="Keep the change"
          busy={consider.isPending}
          error={consider.error?.message}
          onReason={(reason) =>
            consider.mutate({ version: candidate.version, considerations, reason }, { onSuccess: onDone })
          }
          onClose={() => setAsking(false)}
        >
          <p>Raters grade already. A fact that rules a candidate out keeps it from being recommended.</p>
        </ReasonDialog>
      )}
    </>
  );
}
