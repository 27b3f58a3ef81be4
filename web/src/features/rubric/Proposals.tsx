import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Area } from "../../ui/Field";
import { count, moment } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { proposalsOf, useDecide } from "./api";

type Proposal = Schemas["ProposalView"];

/** Other wordings that people proposed: first those that wait. */
export function Proposals({ studyId }: { studyId: string }) {
  const proposals = useQuery(proposalsOf(studyId));
  const all = proposals.data ?? [];
  if (all.length === 0) {
    return <Trouble error={proposals.error} />;
  }
  const waiting = all.filter((p) => p.state === "WAITING");
  const decided = all.filter((p) => p.state !== "WAITING");
  return (
    <section className="mt-8 border-t border-rule pt-4" id="proposals">
      <h2 className="mb-2">Proposed for the next version</h2>
      {waiting.length === 0 && <p className="text-ink-soft">Nothing waits for you.</p>}
      <ul>
        {waiting.map((p) => (
          <Waiting key={p.id} studyId={studyId} proposal={p} />
        ))}
      </ul>
      {decided.length > 0 && (
        <details className="mt-2">
          <summary className="cursor-pointer text-sm text-ink-soft">
            {count(decided.length, "that was decided on", "that were decided on")}
          </summary>
          <ul>
            {decided.map((p) => (
              <li key={p.id} className="border-t border-rule py-1.5 text-sm [overflow-wrap:anywhere]">
                <Where proposal={p} />: {p.words}{" "}
                <span className="text-ink-soft">
                  {p.state === "TAKEN" ? `Taken into version ${p.rubricVersion}` : "Declined"} by {p.decidedBy},{" "}
                  {p.decidedAt && moment(p.decidedAt)}.
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function Where({ proposal }: { proposal: Proposal }) {
  return (
    <strong>
      {proposal.criterionName}, {proposal.kind.toLowerCase()}, level {proposal.level}
    </strong>
  );
}

function Waiting({ studyId, proposal }: { studyId: string; proposal: Proposal }) {
  const decide = useDecide(studyId);
  const [taking, setTaking] = useState(false);
  return (
    <li className="border-t border-rule py-2 [overflow-wrap:anywhere]">
      <p>
        <Where proposal={proposal} />{" "}
        <span className="text-sm text-ink-soft">
          {proposal.by}, {moment(proposal.at)}
        </span>
      </p>
      <p className="mt-1">
        <span className="text-sm text-ink-soft">Now:</span> {proposal.present === "" ? "no anchor" : proposal.present}
      </p>
      <p className="mt-1">
        <span className="text-sm text-ink-soft">Proposed:</span> {proposal.words}
      </p>
      {proposal.why && <p className="mt-1 text-sm text-ink-soft">{proposal.why}</p>}
      <Trouble error={decide.error} className="mt-2" />
      <div className="mt-2 flex gap-2">
        <Button onClick={() => setTaking(true)}>Take it …</Button>
        <Button disabled={decide.isPending} onClick={() => decide.mutate({ id: proposal.id, step: "decline" })}>
          Decline
        </Button>
      </div>
      {taking && <TakeDialog studyId={studyId} proposal={proposal} onClose={() => setTaking(false)} />}
    </li>
  );
}

type TakeDialogProps = { studyId: string; proposal: Proposal; onClose: () => void };

function TakeDialog({ studyId, proposal, onClose }: TakeDialogProps) {
  const decide = useDecide(studyId);
  const [words, setWords] = useState(proposal.words);
  return (
    <Dialog title="Take it into the next version?" open onOpenChange={(open) => !open && onClose()}>
      <p className="text-sm text-ink-soft">
        <Where proposal={proposal} />. It stands in the draft then; raters grade by it once a version with it is
        published and used.
      </p>
      <Area
        label="What the anchor says"
        className="mt-3"
        rows={4}
        required
        maxLength={LIMITS.TakeProposal.words}
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <Trouble error={decide.error} className="mt-2" />
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button
          tone="primary"
          disabled={decide.isPending || words.trim() === ""}
          onClick={() => decide.mutate({ id: proposal.id, step: "take", words }, { onSuccess: onClose })}
        >
          Take it
        </Button>
      </div>
    </Dialog>
  );
}
