import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { at } from "../../api/base";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { useTitle } from "../../ui/useTitle";
import { linkBy, linkOwner, useLink, waysIn } from "./api";
import { Frontispiece } from "./Frontispiece";
import { NewPasswordFields, useNewPassword } from "./NewPassword";
import { Providers } from "./Providers";

/** Where a one-time link leads. Its token stands behind the #, so that no server on the way writes it down. */
export function WelcomePage() {
  const token = useLocation().hash.slice(1);
  const owner = useQuery(linkOwner(token));
  useTitle("Welcome");
  const spent = token === "" || (owner.error instanceof ApiProblem && owner.error.status < 500);
  return (
    <Frontispiece title={spent ? "This link is spent" : "Welcome"}>
      {spent ? (
        <>
          <p>It was used already, has expired or is not complete. The lead can make a new one.</p>
          <p className="mt-3">
            If you have a password, <Link to="/sign-in">sign in</Link>.
          </p>
        </>
      ) : (
        <Query of={owner} what="the link">
          {(account) => <WaysToUse token={token} account={account} />}
        </Query>
      )}
    </Frontispiece>
  );
}

/** A link is used with a password or by a provider, as this installation has it. */
function WaysToUse({ token, account }: { token: string; account: Schemas["AccountView"] }) {
  const ways = useQuery(waysIn());
  const passwords = ways.data?.passwords ?? true;
  const by = useMutation({ mutationFn: linkBy, onSuccess: ({ address }) => location.assign(at(address)) });
  return (
    <>
      {passwords && <PasswordForm token={token} account={account} />}
      <div className={passwords ? "mt-4" : undefined}>
        <Providers disabled={by.isPending} onChoose={(provider) => by.mutate({ token, provider: provider.id })}>
          <p>{passwords ? "Or without a password:" : `You are ${account.displayName} here. This link works once.`}</p>
        </Providers>
        <Trouble error={by.error} className="mt-2" />
      </div>
    </>
  );
}

function PasswordForm({ token, account }: { token: string; account: Schemas["AccountView"] }) {
  const link = useLink();
  const navigate = useNavigate();
  const [displayName, setDisplayName] = useState(account.displayName);
  const chosen = useNewPassword();
  const problem = link.error instanceof ApiProblem ? link.error : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (chosen.agrees()) {
      link.mutate(
        { token, displayName, password: chosen.password },
        { onSuccess: () => void navigate("/", { replace: true }) },
      );
    }
  };
  return (
    <form onSubmit={submit} className="grid gap-3">
      <p>
        You sign in as <strong>{account.signInName}</strong>. Set a password; this link works once.
      </p>
      <Field
        label="Your name, as others see it"
        autoComplete="name"
        required
        maxLength={LIMITS.UseLink.displayName}
        value={displayName}
        error={problem?.errorOf("displayName")}
        onChange={(e) => setDisplayName(e.target.value)}
      />
      <NewPasswordFields of={chosen} label="Password" problem={problem} />
      {link.isError && !problem?.errors.length && (
        <Note tone="trouble" role="alert">
          {link.error.message}
        </Note>
      )}
      <Button tone="primary" type="submit" disabled={link.isPending} className="justify-center">
        Set the password
      </Button>
    </form>
  );
}
