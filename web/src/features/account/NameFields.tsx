import { useState } from "react";
import type { ApiProblem } from "../../api/client";
import { Field } from "../../ui/Field";

function proposed(name: string): string {
  const first = name.trim().split(/\s+/)[0] ?? "";
  return first
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9._-]/g, "");
}

type Names = { name: string; signInName: string };

/** A name, and a sign-in name made from it until somebody writes one of their own. */
export function useNames() {
  const [value, setValue] = useState<Names>({ name: "", signInName: "" });
  return {
    value,
    setName: (name: string) =>
      setValue((old) => ({
        name,
        signInName: old.signInName === proposed(old.name) ? proposed(name) : old.signInName,
      })),
    setSignInName: (signInName: string) => setValue((old) => ({ ...old, signInName })),
    /** Whoever types the next one already keeps what they typed. */
    clear: (sent: Names) =>
      setValue((now) => ({
        name: now.name === sent.name ? "" : now.name,
        signInName: now.signInName === sent.signInName ? "" : now.signInName,
      })),
  };
}

type NameFieldsProps = { of: ReturnType<typeof useNames>; maxLength: number; problem: ApiProblem | undefined };

/** Who somebody is, and how they sign in. */
export function NameFields({ of: names, maxLength, problem }: NameFieldsProps) {
  return (
    <>
      <Field
        label="Name"
        className="min-w-56"
        required
        maxLength={maxLength}
        value={names.value.name}
        error={problem?.errorOf("name")}
        onChange={(e) => names.setName(e.target.value)}
      />
      <Field
        label="Signs in as"
        className="min-w-48"
        required
        value={names.value.signInName}
        error={problem?.errorOf("signInName")}
        onChange={(e) => names.setSignInName(e.target.value)}
      />
    </>
  );
}
