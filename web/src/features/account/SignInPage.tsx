import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, Navigate, useSearchParams } from "react-router";
import { at } from "../../api/base";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { useTitle } from "../../ui/useTitle";
import { demoSignIns, mailOn, useSession, useSignIn, waysIn } from "./api";
import { Frontispiece } from "./Frontispiece";
import { Providers, refusalOf } from "./Providers";

/** Only addresses of this application; anything else would lead people away after they signed in. */
function safeNext(next: string | null): string {
  return next && /^\/(?![/\\])/.test(next) ? next : "/";
}

export function SignInPage() {
  const [search] = useSearchParams();
  const session = useSession();
  const signIn = useSignIn();
  const demo = useQuery(demoSignIns());
  const ways = useQuery(waysIn());
  useTitle("Sign in");
  if (session.data?.account) {
    return <Navigate to={safeNext(search.get("next"))} replace />;
  }
  const next = safeNext(search.get("next"));
  const refused = search.get("refused");
  return (
    <Frontispiece title="Sign in">
      {refused && (
        <Note tone="trouble" role="alert" className="mb-3">
          {refusalOf(refused)}
        </Note>
      )}
      <Providers
        onChoose={(provider) => location.assign(at(`/api/sign-in/${provider.id}?next=${encodeURIComponent(next)}`))}
      />
      {(ways.data?.passwords ?? true) && (
        <PasswordForm signIn={signIn} apart={(ways.data?.providers.length ?? 0) > 0} />
      )}
      {demo.data && (
        <DemoSignIns demo={demo.data} onSignIn={(as, word) => signIn.mutate({ name: as, password: word })} />
      )}
    </Frontispiece>
  );
}

type PasswordFormProps = {
  signIn: ReturnType<typeof useSignIn>;
  /** Whether other ways stand above. */
  apart: boolean;
};

function PasswordForm({ signIn, apart }: PasswordFormProps) {
  const mail = useQuery(mailOn());
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate({ name, password });
  };
  return (
    <form onSubmit={submit} className={classes("grid gap-3", apart && "mt-4 border-t border-rule pt-4")}>
      <Field
        label="Name"
        autoComplete="username"
        autoCapitalize="none"
        required
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Field
        label="Password"
        type="password"
        autoComplete="current-password"
        required
        value={password}
        onChange={(e) => setPassword(e.target.value)}
      />
      {signIn.isError && (
        <Note tone="trouble" role="alert">
          {signIn.error.message}
        </Note>
      )}
      <Button tone="primary" type="submit" disabled={signIn.isPending} className="justify-center">
        Sign in
      </Button>
      {mail.data?.on && (
        <p className="text-sm">
          <Link to="/lost-password">Lost your password?</Link>
        </p>
      )}
    </form>
  );
}

type DemoSignInsProps = { demo: Schemas["DemoSignIn"][]; onSignIn: (name: string, password: string) => void };

/** Who can sign in to the demo, with one press. */
function DemoSignIns({ demo, onSignIn }: DemoSignInsProps) {
  return (
    <section className="mt-6 border-t border-rule pt-4">
      <h2 className="text-base">This is the demo. Sign in as</h2>
      <ul className="mt-2 grid gap-1">
        {demo.map((d) => (
          <li key={d.name}>
            <button
              type="button"
              className="flex w-full items-baseline gap-2 rounded-leaf border border-rule px-3 py-1 text-left hover:border-ink"
              onClick={() => onSignIn(d.name, d.password)}
            >
              <span className="font-medium">{d.displayName}</span>
              <span className="ml-auto text-sm text-ink-soft">{d.role}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
