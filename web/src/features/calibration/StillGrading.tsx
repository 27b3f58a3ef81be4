import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { useGoOnWithout, type Which } from "./api";

type Awaited = Schemas["Awaited"];

/** Who has not sent in, and going on without one of them. */
export function StillGrading({ waitsFor, which }: { waitsFor: Awaited[]; which: Which }) {
  const [leaving, setLeaving] = useState<Awaited>();
  return waitsFor.length === 0 ? null : (
    <>
      <p>Still grading: {waitsFor.map((w) => w.name).join(", ")}.</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {waitsFor.map((w) => (
          <Button key={w.raterId} onClick={() => setLeaving(w)}>
            Go on without {w.name} …
          </Button>
        ))}
      </div>
      {leaving && <WithoutDialog leaving={leaving} which={which} onClose={() => setLeaving(undefined)} />}
    </>
  );
}

type WithoutDialogProps = { leaving: Awaited; which: Which; onClose: () => void };

function WithoutDialog({ leaving, which, onClose }: WithoutDialogProps) {
  const goOn = useGoOnWithout(which);
  return (
    <ReasonDialog
      title={`Go on without ${leaving.name}?`}
      maxLength={LIMITS.GoOnWithout.reason}
      action="Go on without them"
      busy={goOn.isPending}
      error={goOn.error?.message}
      onReason={(reason) => goOn.mutate({ raterId: leaving.raterId, reason }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <p>
        Their open sheets are withdrawn; what they have sent in stays. They grade in the round as planned, unless you
        take them out of it.
      </p>
    </ReasonDialog>
  );
}
