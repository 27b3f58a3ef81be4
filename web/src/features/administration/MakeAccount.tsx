import { type FormEvent, useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Tick } from "../../ui/Field";
import { Trouble } from "../../ui/Trouble";
import { NameFields, useNames } from "../account";
import { useMakeAccount } from "./api";

/** Makes an account for somebody, mostly for another lead. */
export function MakeAccount({ onMade }: { onMade: (made: Schemas["MadeAccount"]) => void }) {
  const make = useMakeAccount();
  const [asking, setAsking] = useState(false);
  const names = useNames();
  const [mayBringIn, setMayBringIn] = useState(true);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate(
      { ...names.sent, mayBringIn },
      {
        onSuccess: (made) => {
          setAsking(false);
          names.clear(names.value);
          onMade(made);
        },
      },
    );
  };
  const problem = make.error instanceof ApiProblem ? make.error : undefined;
  return (
    <>
      <Button tone="primary" onClick={() => setAsking(true)}>
        Make an account
      </Button>
      <Dialog title="Make an account" open={asking} onOpenChange={setAsking}>
        <form onSubmit={submit} className="grid gap-3">
          <NameFields of={names} maxLength={LIMITS.MakeAccount.name} problem={problem} />
          <Tick label="May begin and bring in studies" checked={mayBringIn} onTick={setMayBringIn} />
          <Trouble error={problem && problem.errors.length > 0 ? null : make.error} />
          <div className="flex justify-end gap-2">
            <Button onClick={() => setAsking(false)}>Leave it</Button>
            <Button type="submit" tone="primary" disabled={make.isPending}>
              Make it
            </Button>
          </div>
        </form>
      </Dialog>
    </>
  );
}
