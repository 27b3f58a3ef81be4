import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { Query } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { leaversOfStudy, useShowLeavers } from "./api";
import { useStudy } from "./useStudy";

type Shown = Schemas["Leavers"]["shown"];

const WAYS: { value: Shown; label: string }[] = [
  { value: "BY_NAME", label: "under their name" },
  { value: "BY_NUMBER", label: "under a number" },
];

/** What the study calls those who have left. */
export function Leavers() {
  const study = useStudy();
  const leavers = useQuery(leaversOfStudy(study.id));
  const show = useShowLeavers(study.id);
  return (
    <section aria-labelledby="leavers" className="mt-8">
      <h2 id="leavers">When somebody leaves</h2>
      <p className="mt-1 mb-3 max-w-prose text-ink-soft">
        Whoever an administrator deactivates has left. What they graded stays and counts. Under a number no page, figure
        or file of this study names them, and an archive has numbers for all raters; what was signed, put on record or
        written by people keeps the name of its time.
      </p>
      <Query of={leavers} what="how those who leave are shown">
        {({ shown }) => (
          <Choice
            label="Their grades stay"
            className="w-64"
            value={show.isPending ? show.variables : shown}
            options={WAYS}
            disabled={show.isPending}
            onValue={(chosen) => show.mutate(chosen)}
          />
        )}
      </Query>
      <Trouble error={show.error} className="mt-2" />
    </section>
  );
}
