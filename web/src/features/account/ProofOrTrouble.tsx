import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { at, within } from "../../api/base";
import { ApiProblem } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Field } from "../../ui/Field";
import { Trouble } from "../../ui/Trouble";
import { ownAccount, ownIdentities, prove, proveBy, waysIn } from "./api";

type ProofOrTroubleProps = {
  error: Error | null;
  /** Does once more what was refused. */
  onProved: () => void;
  /** Leaves it undone. */
  onClose: () => void;
  className?: string;
};

/**
 * Says why something could not be done; where it is because the sign-in is a while ago, asks who it is and then has it done.
 */
export function ProofOrTrouble({ error, onProved, onClose, className }: ProofOrTroubleProps) {
  if (error instanceof ApiProblem && error.type === "proof-needed") {
    return <ProofDialog onProved={onProved} onClose={onClose} />;
  }
  return <Trouble error={error} {...(className !== undefined && { className })} />;
}

function ProofDialog({ onProved, onClose }: { onProved: () => void; onClose: () => void }) {
  const ways = useQuery(waysIn());
  const own = useQuery(ownAccount());
  const identities = useQuery(ownIdentities());
  const byPassword = ways.data?.passwords === true && own.data?.account.hasPassword === true;
  return (
    <Dialog title="Show that it is you" open onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">
        This cannot be taken back, and it is a while since you signed in. So it is asked once more who you are.
      </p>
      {byPassword && <ByPassword onProved={onProved} onClose={onClose} />}
      {(identities.data ?? []).map((identity) => (
        <ByProvider key={identity.provider} provider={identity.provider} name={identity.name} />
      ))}
      {!byPassword && (
        <div className="mt-4 flex justify-end">
          <Button onClick={onClose}>Leave it as it is</Button>
        </div>
      )}
    </Dialog>
  );
}

function ByPassword({ onProved, onClose }: { onProved: () => void; onClose: () => void }) {
  const [password, setPassword] = useState("");
  const show = useMutation({ mutationFn: () => prove(password), onSuccess: onProved });
  const wrong = show.error instanceof ApiProblem ? show.error.errorOf("password") : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    // A form in a window over another one must not send that one as well.
    event.stopPropagation();
    show.mutate();
  };
  return (
    <form onSubmit={submit} className="grid gap-3">
      <Field
        label="Your password"
        type="password"
        autoComplete="current-password"
        required
        maxLength={LIMITS.Prove.password}
        value={password}
        {...(wrong !== undefined && { error: wrong })}
        onChange={(e) => setPassword(e.target.value)}
      />
      {wrong === undefined && <Trouble error={show.error} />}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Leave it as it is</Button>
        <Button type="submit" tone="primary" disabled={password === "" || show.isPending}>
          It is me
        </Button>
      </div>
    </form>
  );
}

/** What was written on the page is kept by the page; what was pressed is pressed again. */
function ByProvider({ provider, name }: { provider: string; name: string }) {
  const go = useMutation({
    mutationFn: () => proveBy(provider),
    onSuccess: ({ address }) =>
      window.location.assign(
        `${at(address)}&next=${encodeURIComponent(within(window.location.pathname) + window.location.search)}`,
      ),
  });
  return (
    <div className="mt-3">
      <Button disabled={go.isPending} onClick={() => go.mutate()}>
        Show it by {name}, and come back here
      </Button>
      <Trouble error={go.error} className="mt-2" />
    </div>
  );
}
