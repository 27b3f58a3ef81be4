import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Trouble } from "../../ui/Trouble";
import { useTitle } from "../../ui/useTitle";
import { losePassword } from "./api";
import { Frontispiece } from "./Frontispiece";

/** Asks for a one-time link by mail. The answer is the same whoever is named. */
export function LostPasswordPage() {
  const lose = useMutation({ mutationFn: losePassword });
  const [name, setName] = useState("");
  useTitle("Another password");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    lose.mutate({ name });
  };
  return (
    <Frontispiece title="Another password">
      {lose.isSuccess ? (
        <p role="status">
          If somebody signs in by this name and their address is known, a letter with a link is on its way. Otherwise
          ask the administrator for a link.
        </p>
      ) : (
        <form onSubmit={submit} className="grid gap-3">
          <Field
            label="The name you sign in with"
            autoComplete="username"
            autoCapitalize="none"
            required
            maxLength={LIMITS.LostPassword.name}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <Trouble error={lose.error} />
          <Button tone="primary" type="submit" disabled={lose.isPending} className="justify-center">
            Send me a link
          </Button>
        </form>
      )}
      <p className="mt-4">
        <Link to="/sign-in">Back to signing in</Link>
      </p>
    </Frontispiece>
  );
}
