import { type FormEvent, useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { NameFields, useNames } from "../account";
import type { useAddRater } from "./api";

type Role = NonNullable<Schemas["AddRater"]["role"]>;

type NewPersonProps = {
  add: ReturnType<typeof useAddRater>;
  /** As what somebody may be added; with one alone it is not asked. */
  roles: { value: Role; label: string }[];
  onInvited: (invitation: Schemas["Invitation"]) => void;
};

/** One more person of a study, by name. */
export function NewPerson({ add, roles, onInvited }: NewPersonProps) {
  const names = useNames();
  const [chosen, setRole] = useState<Role>();
  const role = chosen ?? roles[0]?.value ?? "RATER";
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const sent = names.sent;
    add.mutate(role === "RATER" ? sent : { ...sent, role }, {
      onSuccess: ({ invitation }) => {
        names.clear(sent);
        if (invitation) {
          onInvited(invitation);
        }
      },
    });
  };
  return (
    <>
      <form onSubmit={submit} className="mt-3 flex flex-wrap items-start gap-3">
        <NameFields
          of={names}
          maxLength={LIMITS.AddRater.name}
          problem={add.error instanceof ApiProblem ? add.error : undefined}
        />
        {roles.length > 1 && <Choice label="As" className="w-40" value={role} options={roles} onValue={setRole} />}
        <Button type="submit" className="mt-7" disabled={add.isPending}>
          {roles.length > 1 ? "Add" : "Add a rater"}
        </Button>
      </form>
      {add.data && add.data.name !== add.variables.name && (
        <Note tone="info" role="status" className="mt-2">
          Whoever signs in as {add.variables.signInName} is called {add.data.name} here, and stays so. If you meant
          somebody else, take them out again and choose another sign-in name.
        </Note>
      )}
    </>
  );
}
