import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Navigate, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { useTitle } from "../../ui/useTitle";
import { demoSignIns, useSession, useSignIn } from "./api";
import { Frontispiece } from "./Frontispiece";

/** Only addresses of this application; anything else would lead people away after they signed in. */
function safeNext(next: string | null): string {
  return next && /^\/(?![/\\])/.test(next) ? next : "/";
}

export function SignInPage() {
  const [search] = useSearchParams();
  const session = useSession();
  const signIn = useSignIn();
  const demo = useQuery(demoSignIns());
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  useTitle("Sign in");
  if (session.data?.account) {
    return <Navigate to={safeNext(search.get("next"))} replace />;
  }
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate({ name, password });
  };
  return (
    <Frontispiece title="Sign in">
      <form onSubmit={submit} className="grid gap-3">
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
      </form>
      {demo.data && (
        <DemoSignIns demo={demo.data} onSignIn={(as, word) => signIn.mutate({ name: as, password: word })} />
      )}
    </Frontispiece>
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
