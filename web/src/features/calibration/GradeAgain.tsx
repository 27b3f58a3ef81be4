import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { Trouble } from "../../ui/Trouble";
import { useGradeAgain, type Which } from "./api";

/** What the lead does once all have talked. */
export function GradeAgain({ page, which }: { page: Schemas["CalibrationPage"]; which: Which }) {
  const again = useGradeAgain(which);
  const [asking, setAsking] = useState(false);
  return (
    <section className="mt-8 border-t border-rule pt-4">
      <h2>What comes next</h2>
      <p className="mt-1 max-w-3xl">
        Proposals for anchors wait with <Link to={`/studies/${which.studyId}/rubric#proposals`}>the rubric</Link>, where
        you publish its next version. The <Link to={`/studies/${which.studyId}/grading`}>round</Link> opens by itself
        once the floor was reached, and with a reason where it was not; another calibration takes other prompts.
      </p>
      {page.mayRepeat && (
        <Button className="mt-3" onClick={() => setAsking(true)}>
          Have it graded again …
        </Button>
      )}
      <Confirm
        title="Have it graded again?"
        open={asking}
        onOpenChange={setAsking}
        action="Lay it before them again"
        busy={again.isPending}
        onConfirm={() => again.mutate(undefined, { onSuccess: () => setAsking(false) })}
      >
        <p>
          Everybody gets the same answers once more, by the newest published version of the rubric. Both gradings are
          kept, side by side; only the first counts for the floor.
        </p>
        <Trouble error={again.error} />
      </Confirm>
    </section>
  );
}
