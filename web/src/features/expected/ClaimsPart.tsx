import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Choice, Field, NumberField } from "../../ui/Field";
import { Query } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { useKept } from "../../ui/useKept";
import { candidatesOfStudy } from "../candidate";
import { useStudy } from "../study";
import { claimsOfStudy, useWriteClaims } from "./api";

type Claim = Schemas["ClaimContent"];
type Candidate = Schemas["CandidateView"];

/** Figures that others published: written down before anybody grades, and held against what comes out. */
export function ClaimsPart() {
  const study = useStudy();
  const candidates = useQuery(candidatesOfStudy(study.id));
  const claims = useQuery(claimsOfStudy(study.id));
  return (
    <section className="mt-10 border-t border-rule pt-5">
      <h2>What is claimed elsewhere</h2>
      <p className="mt-1 mb-3 max-w-2xl text-ink-soft">
        Published figures of the candidates, with where they stand. They are held against the scores in the end and
        decide nothing.
      </p>
      <Query of={candidates} what="the candidates">
        {(all) => (
          <Query of={claims} what="what is claimed">
            {(known) => <Claims candidates={all.filter((c) => !c.content.baseline)} claims={known} />}
          </Query>
        )}
      </Query>
    </section>
  );
}

function Claims({ candidates, claims }: { candidates: Candidate[]; claims: Claim[] }) {
  const study = useStudy();
  const write = useWriteClaims(study.id);
  // What is written down and not kept yet outlives a reload.
  const { chosen, choose } = useKept<{ rows: Claim[] | null }>(`claims.${study.id}`);
  const rows = chosen.rows ?? claims;
  const setRows = (next: Claim[]) => choose({ rows: next });
  const [first] = candidates;
  if (first === undefined) {
    return <p>There is no candidate yet.</p>;
  }
  const changed = JSON.stringify(rows) !== JSON.stringify(claims);
  const whole = rows.every((r) => r.measure.trim() !== "" && r.source.trim() !== "");
  return (
    <>
      <ol className="grid gap-3">
        {rows.map((row, i) => (
          <ClaimRow
            key={i}
            number={i + 1}
            claim={row}
            candidates={candidates}
            onClaim={(next) => setRows(rows.with(i, next))}
            onTakeOut={() => setRows(rows.toSpliced(i, 1))}
          />
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <AddButton
          onAdd={() =>
            setRows([
              ...rows,
              { higherIsBetter: true, measure: "", source: "", value: 0, ...rows.at(-1), candidateId: first.id },
            ])
          }
        >
          Add a published figure
        </AddButton>
        {changed && (
          <Button
            tone="primary"
            disabled={write.isPending || !whole}
            onClick={() => write.mutate(rows, { onSuccess: () => choose({ rows: null }) })}
          >
            Keep them
          </Button>
        )}
        <span role="status" className="text-sm text-ink-soft">
          {changed ? (whole ? "Not kept yet." : "Each needs what was measured, and where it stands.") : ""}
        </span>
      </div>
      <Trouble error={write.error} className="mt-2" />
    </>
  );
}

type ClaimRowProps = {
  number: number;
  claim: Claim;
  candidates: Candidate[];
  onClaim: (claim: Claim) => void;
  onTakeOut: () => void;
};

function ClaimRow({ number, claim, candidates, onClaim, onTakeOut }: ClaimRowProps) {
  const of = `of figure ${number}`;
  return (
    <li className="grid items-end gap-2 md:grid-cols-[8rem_1fr_5rem_9rem_1fr_9rem_auto]">
      <Choice
        label={`Candidate ${of}`}
        labelHidden
        value={claim.candidateId}
        options={candidates.map((c) => ({ value: c.id, label: c.content.name }))}
        onValue={(candidateId) => onClaim({ ...claim, candidateId })}
      />
      <Field
        label={`What was measured, ${of}`}
        labelHidden
        placeholder="what was measured"
        maxLength={LIMITS.ClaimContent.measure}
        value={claim.measure}
        onChange={(e) => onClaim({ ...claim, measure: e.target.value })}
      />
      <NumberField
        label={`Value ${of}`}
        labelHidden
        value={claim.value}
        onNumber={(value) => onClaim({ ...claim, value: value ?? 0 })}
      />
      <Choice
        label={`Which is better, ${of}`}
        labelHidden
        value={claim.higherIsBetter ? "more" : "less"}
        options={[
          { value: "more", label: "more is better" },
          { value: "less", label: "less is better" },
        ]}
        onValue={(better) => onClaim({ ...claim, higherIsBetter: better === "more" })}
      />
      <Field
        label={`Where it stands, ${of}`}
        labelHidden
        placeholder="where it stands"
        maxLength={LIMITS.ClaimContent.source}
        value={claim.source}
        onChange={(e) => onClaim({ ...claim, source: e.target.value })}
      />
      <Field
        label={`As of which day, ${of}`}
        labelHidden
        type="date"
        value={claim.asOf ?? ""}
        onChange={(e) => {
          const { asOf: _, ...undated } = claim;
          onClaim(e.target.value === "" ? undated : { ...undated, asOf: e.target.value });
        }}
      />
      <Button aria-label={`Take out figure ${number}`} onClick={onTakeOut}>
        Take out
      </Button>
    </li>
  );
}
