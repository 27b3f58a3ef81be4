import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Choice, Field, Tick } from "../../ui/Field";
import { Query } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { useKept } from "../../ui/useKept";
import { useTitle } from "../../ui/useTitle";
import { candidatesOfStudy } from "../candidate";
import { HiddenStandings, Views } from "../recommendation";
import { useStudy } from "../study";
import { useBeginNext } from "./api";

/** Begins the next study from this one. */
export function NextPage() {
  const study = useStudy();
  const candidates = useQuery(candidatesOfStudy(study.id));
  useTitle(`The next study · ${study.title}`);
  if (study.stage === "GRADING") {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>The next study</h1>
      <p className="mt-1 mb-5 max-w-3xl text-ink-soft">
        It begins with the same prompts, rubric and rule, with its brief open. What was graded here stays here.
      </p>
      {study.role === "LEAD" ? (
        <Query of={candidates} what="the candidates">
          {(all) => <NextForm candidates={all} />}
        </Query>
      ) : (
        <p>A lead can begin it.</p>
      )}
    </>
  );
}

const SHARES = [
  { value: "0", label: "none" },
  { value: "0.25", label: "to a quarter of the prompts" },
  { value: "0.5", label: "to half of the prompts" },
  { value: "1", label: "to all prompts" },
];

type Chosen = { title: string; again: string[]; share: string; raters: boolean };

function NextForm({ candidates }: { candidates: Schemas["CandidateView"][] }) {
  const study = useStudy();
  const navigate = useNavigate();
  const begin = useBeginNext(study.id);
  const { chosen, choose } = useKept<Chosen>(`next.${study.id}`);
  const { title = "", share = "0.5", raters = true } = chosen;
  const again = chosen.again ?? candidates.filter((c) => !c.content.baseline).map((c) => c.id);
  const start = () =>
    begin.mutate(
      { title, candidateIds: again, share: again.length === 0 ? 0 : Number(share), raters },
      { onSuccess: ({ studyId }) => void navigate(`/studies/${studyId}/brief`) },
    );
  return (
    <form
      className="grid max-w-2xl gap-5"
      onSubmit={(event) => {
        event.preventDefault();
        start();
      }}
    >
      <Field
        label="Title"
        placeholder={`${study.title}, again`}
        maxLength={LIMITS.BeginNext.title}
        value={title}
        onChange={(e) => choose({ title: e.target.value })}
      />
      <Again candidates={candidates} again={again} onAgain={(ids) => choose({ again: ids })} />
      <Choice
        label="Their answers of this study are graded again"
        hint="Blind, among the new ones: what the same answers get shows whether the ruler moved."
        className="max-w-80"
        value={again.length === 0 ? "0" : share}
        disabled={again.length === 0}
        options={SHARES}
        onValue={(next) => choose({ share: next })}
      />
      <Tick
        checked={raters}
        label="The same raters are asked"
        hint="Each must accept before they can grade."
        onTick={(ticked) => choose({ raters: ticked })}
      />
      <Trouble error={begin.error} />
      <div className="flex gap-2">
        <Button type="submit" tone="primary" disabled={begin.isPending || title.trim() === ""}>
          {begin.isPending ? "Beginning …" : "Begin it"}
        </Button>
        <Link to=".." relative="path" className="self-center text-sm">
          Leave it
        </Link>
      </div>
    </form>
  );
}

type AgainProps = {
  candidates: Schemas["CandidateView"][];
  again: string[];
  onAgain: (ids: string[]) => void;
};

function Again({ candidates, again, onAgain }: AgainProps) {
  return (
    <fieldset>
      <legend className="font-medium">Who takes part again</legend>
      <p className="text-sm text-ink-soft">As they were. New candidates, and new versions, are added there.</p>
      <div className="mt-1 grid gap-1">
        {candidates.map((c) => (
          <Tick
            key={c.id}
            checked={again.includes(c.id)}
            label={c.content.version === "" ? c.content.name : `${c.content.name} ${c.content.version}`}
            onTick={(ticked) => onAgain(ticked ? [...again, c.id] : again.filter((id) => id !== c.id))}
          />
        ))}
      </div>
    </fieldset>
  );
}
