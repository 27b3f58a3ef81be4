import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { count } from "../../ui/format";
import { Query } from "../../ui/Query";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { takingOutOf, useTakeOut } from "./api";
import { Balance } from "./DealDialog";

type Rater = Schemas["RaterProgress"];

type TakeOutDialogProps = { studyId: string; rater: Rater; raters: Rater[]; onClose: () => void };

/** Takes a rater out of the round, and shows before it is done who then has how many sheets. */
export function TakeOutDialog({ studyId, rater, raters, onClose }: TakeOutDialogProps) {
  const preview = useQuery(takingOutOf(studyId, rater.raterId));
  const takeOut = useTakeOut(studyId);
  return (
    <ReasonDialog
      title={`Take ${rater.name} out of the round?`}
      maxLength={LIMITS.TakeOut.reason}
      action="Take them out"
      busy={takeOut.isPending || !preview.data}
      error={takeOut.error?.message}
      onReason={(reason) => takeOut.mutate({ raterId: rater.raterId, reason }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <p>What they have sent in stays, and counts.</p>
      <Query of={preview} what="who would have how many">
        {(view) => (
          <>
            <p>
              {count(view.given, "open sheet goes", "open sheets go")} to others
              {view.withdrawn > 0 && `, ${count(view.withdrawn, "is", "are")} withdrawn, as nobody else may have them`}.
              {view.begun > 0 &&
                ` ${count(view.begun, "of them was", "of them were")} begun; what was graded on them is kept and counts nowhere.`}
            </p>
            <Balance view={view} raters={raters} />
          </>
        )}
      </Query>
    </ReasonDialog>
  );
}
