import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { ApiProblem } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { changePassword, ownAccount, signOutElsewhere } from "./api";
import { NewPasswordFields, useNewPassword } from "./NewPassword";

/** One's own account: a new password, and where else one is signed in. */
export function AccountPage() {
  const own = useQuery(ownAccount());
  useTitle("Your account");
  return (
    <main className="mx-auto w-full max-w-2xl px-6 py-8">
      <Query of={own} what="your account">
        {({ account, otherSessions }) => (
          <>
            <h1>{account.displayName}</h1>
            <p className="mt-1 text-ink-soft">You sign in as {account.signInName}.</p>
            <PasswordChange />
            <Elsewhere sessions={otherSessions} />
          </>
        )}
      </Query>
    </main>
  );
}

function PasswordChange() {
  const client = useQueryClient();
  const change = useMutation({
    mutationFn: changePassword,
    onSuccess: (own) => client.setQueryData(ownAccount().queryKey, own),
  });
  const [current, setCurrent] = useState("");
  const chosen = useNewPassword();
  const problem = change.error instanceof ApiProblem ? change.error : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (chosen.agrees()) {
      change.mutate(
        { current, password: chosen.password },
        {
          onSuccess: () => {
            setCurrent("");
            chosen.clear();
          },
        },
      );
    }
  };
  return (
    <section className="mt-8">
      <h2>Another password</h2>
      <p className="mt-1 mb-3 text-ink-soft">Everywhere else you are signed out when you change it.</p>
      <form onSubmit={submit} className="grid max-w-sm gap-3">
        <Field
          label="The one you have now"
          type="password"
          autoComplete="current-password"
          required
          value={current}
          error={problem?.errorOf("current")}
          onChange={(e) => setCurrent(e.target.value)}
        />
        <NewPasswordFields of={chosen} label="The new one" problem={problem} />
        {change.isError && !problem?.errors.length && (
          <Note tone="trouble" role="alert">
            {change.error.message}
          </Note>
        )}
        {change.isSuccess && (
          <Note tone="good" role="status">
            Your password is changed.
          </Note>
        )}
        <Button tone="primary" type="submit" disabled={change.isPending} className="justify-self-start">
          Change the password
        </Button>
      </form>
    </section>
  );
}

function Elsewhere({ sessions }: { sessions: number }) {
  const client = useQueryClient();
  const end = useMutation({
    mutationFn: signOutElsewhere,
    onSuccess: (own) => client.setQueryData(ownAccount().queryKey, own),
  });
  return (
    <section className="mt-10">
      <h2>Elsewhere</h2>
      <p className="mt-1 mb-3">
        {sessions === 0
          ? "You are signed in nowhere else."
          : `You are signed in in ${count(sessions, "other browser", "other browsers")} as well.`}
      </p>
      {sessions > 0 && (
        <Button disabled={end.isPending} onClick={() => end.mutate()}>
          Sign out everywhere else
        </Button>
      )}
      {end.isError && (
        <Note tone="trouble" role="alert" className="mt-2">
          {end.error.message}
        </Note>
      )}
    </section>
  );
}
