import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { Button } from "../../ui/Button";
import { count } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { useStudy } from "../study";
import { turnVerdictsOf, useAskWhereNeeded } from "./api";

/** Goes on only with answers whose last reply does not do, so that turns to a working answer can be counted. */
export function WhereNeeded() {
  const study = useStudy();
  const navigate = useNavigate();
  const verdicts = useQuery(turnVerdictsOf(study.id));
  const ask = useAskWhereNeeded(study.id);
  if (verdicts.data === undefined || verdicts.data.length === 0) {
    return null;
  }
  const last = [...Map.groupBy(verdicts.data, (s) => s.answerId).values()].map(
    (all) => all.reduce((a, b) => (b.turn > a.turn ? b : a)).verdict,
  );
  const does = last.filter((v) => v === "DOES").length;
  const gaveUp = last.filter((v) => v === "GAVE_UP").length;
  return (
    <div className="mt-4">
      <p className="mb-1.5 max-w-3xl text-sm text-ink-soft">
        Of {count(last.length, "answer", "answers")} looked at, {does} {does === 1 ? "does" : "do"} what was asked
        {gaveUp > 0 && ` and ${gaveUp} gave up`}. The rest can be told what is prepared next; those that do, and those
        that gave up, are left alone.
      </p>
      <Button
        disabled={ask.isPending || does + gaveUp === last.length}
        onClick={() =>
          ask.mutate(undefined, {
            onSuccess: (run) => void navigate(`/studies/${study.id}/answers/runs/${run.id}`),
          })
        }
      >
        Ask the next follow-up where it does not do
      </Button>
      <Trouble error={ask.error} className="mt-2" />
    </div>
  );
}
