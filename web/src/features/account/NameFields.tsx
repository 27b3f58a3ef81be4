import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { ApiProblem } from "../../api/client";
import { Field } from "../../ui/Field";
import { mailOn } from "./api";

function proposed(name: string): string {
  const first = name.trim().split(/\s+/)[0] ?? "";
  return first
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9._-]/g, "");
}

type Names = { name: string; signInName: string; mail: string };

/** A name, and a sign-in name made from it until somebody writes one of their own. */
export function useNames() {
  const [value, setValue] = useState<Names>({ name: "", signInName: "", mail: "" });
  return {
    value,
    setName: (name: string) =>
      setValue((old) => ({
        ...old,
        name,
        signInName: old.signInName === proposed(old.name) ? proposed(name) : old.signInName,
      })),
    setSignInName: (signInName: string) => setValue((old) => ({ ...old, signInName })),
    setMail: (mail: string) => setValue((old) => ({ ...old, mail })),
    /** As it is sent: without an address, where none is named. */
    sent: { name: value.name, signInName: value.signInName, ...(value.mail !== "" && { mail: value.mail }) },
    /** Whoever types the next one already keeps what they typed. */
    clear: (sent: { name: string; signInName: string }) =>
      setValue((now) => ({
        name: now.name === sent.name ? "" : now.name,
        signInName: now.signInName === sent.signInName ? "" : now.signInName,
        mail: now.name === sent.name ? "" : now.mail,
      })),
  };
}

type NameFieldsProps = { of: ReturnType<typeof useNames>; maxLength: number; problem: ApiProblem | undefined };

/** Who somebody is, how they sign in, and where mail reaches them. */
export function NameFields({ of: names, maxLength, problem }: NameFieldsProps) {
  const mail = useQuery(mailOn());
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
      {mail.data?.on && (
        <Field
          label="Address for mail"
          hint="An invitation goes there; without it, you pass on a link."
          type="email"
          className="min-w-56"
          value={names.value.mail}
          error={problem?.errorOf("mail")}
          onChange={(e) => names.setMail(e.target.value)}
        />
      )}
    </>
  );
}
