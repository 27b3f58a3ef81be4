import { useQuery } from "@tanstack/react-query";
import { Choice } from "../../ui/Field";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { useStudy } from "../study";
import { followUpRule, useWriteFollowUpRule } from "./api";

const NO_RULE = "none";

/** When to give up on an answer: the same for every candidate. */
export function FollowUpRuleLine({ mayWrite }: { mayWrite: boolean }) {
  const study = useStudy();
  const rule = useQuery(followUpRule(study.id));
  const write = useWriteFollowUpRule(study.id);
  if (!rule.data || (!mayWrite && rule.data.most === undefined)) {
    return null;
  }
  const { most, version } = rule.data;
  if (!mayWrite) {
    return (
      <p className="mt-6 text-sm text-ink-soft">
        An answer got at most {count(most ?? 0, "follow-up", "follow-ups")}; then the study gave up.
      </p>
    );
  }
  return (
    <div className="mt-6">
      <Choice
        label="Give up on an answer"
        hint="The same for every candidate."
        className="w-72"
        value={most === undefined ? NO_RULE : String(most)}
        options={[
          { value: NO_RULE, label: "no rule yet" },
          { value: "0", label: "after the first reply" },
          ...[1, 2, 3, 4, 5].map((n) => ({
            value: String(n),
            label: `after ${count(n, "follow-up", "follow-ups")}`,
          })),
          ...(most !== undefined && most > 5 ? [{ value: String(most), label: `after ${most} follow-ups` }] : []),
        ]}
        onValue={(value) => write.mutate({ version, ...(value === NO_RULE ? {} : { most: Number(value) }) })}
      />
      {write.isError && (
        <Note tone="trouble" role="alert" className="mt-2">
          {write.error.message}
        </Note>
      )}
    </div>
  );
}
