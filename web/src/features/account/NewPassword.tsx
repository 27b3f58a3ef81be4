import { useState } from "react";
import type { ApiProblem } from "../../api/client";
import { Field } from "../../ui/Field";

/** A password that is being chosen, typed twice. */
export function useNewPassword() {
  const [password, setPassword] = useState("");
  const [again, setAgain] = useState("");
  const [mismatch, setMismatch] = useState(false);
  return {
    password,
    setPassword,
    again,
    setAgain,
    mismatch,
    /** Whether both are the same; says so at the fields if not. */
    agrees: () => {
      setMismatch(password !== again);
      return password === again;
    },
    clear: () => {
      setPassword("");
      setAgain("");
    },
  };
}

export function NewPasswordFields({
  of,
  label,
  problem,
}: {
  of: ReturnType<typeof useNewPassword>;
  label: string;
  problem: ApiProblem | undefined;
}) {
  return (
    <>
      <Field
        label={label}
        type="password"
        autoComplete="new-password"
        required
        hint="Ten characters or more, and not one that many have."
        value={of.password}
        error={problem?.errorOf("password")}
        onChange={(e) => of.setPassword(e.target.value)}
      />
      <Field
        label="The same again"
        type="password"
        autoComplete="new-password"
        required
        value={of.again}
        error={of.mismatch ? "The two are not the same." : undefined}
        onChange={(e) => of.setAgain(e.target.value)}
      />
    </>
  );
}
