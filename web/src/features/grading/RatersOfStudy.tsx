import { useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { type Column, Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { InvitationList } from "../account";
import { NewPerson, useAddRater, useRemoveRater, useStudy } from "../study";
import { useInvite } from "./api";

type Person = Schemas["PersonView"];

export const AS_RATER = [{ value: "RATER" as const, label: "Rater" }];

/** Who grades: they are added, invited and taken out here. */
export function RatersOfStudy({ people }: { people: Person[] }) {
  const study = useStudy();
  const add = useAddRater(study.id);
  const remove = useRemoveRater(study.id);
  const invite = useInvite(study.id);
  const [invitations, setInvitations] = useState<Schemas["Invitation"][]>([]);
  const raters = people.filter((p) => p.role === "RATER");
  const show = (i: Schemas["Invitation"]) =>
    setInvitations((old) => [...old.filter((o) => o.accountId !== i.accountId), i]);
  return (
    <section>
      <h2 className="mb-2">Raters</h2>
      {raters.length > 0 && (
        <Table
          caption="Raters of the study"
          onOneLine
          rows={raters}
          rowKey={(p) => p.accountId}
          columns={raterColumns(
            { isPending: invite.isPending, again: (p) => invite.mutate(p.accountId, { onSuccess: show }) },
            remove,
          )}
        />
      )}
      <NewPerson add={add} roles={AS_RATER} onInvited={show} />
      {add.isError && !(add.error instanceof ApiProblem && add.error.errors.length > 0) && (
        <Note tone="trouble" role="alert" className="mt-2">
          {add.error.message}
        </Note>
      )}
      {add.data?.mailed && (
        <Note tone="good" role="status" className="mt-2">
          An invitation goes to them by mail.
        </Note>
      )}
      {add.data?.asked && (
        <Note tone="info" role="status" className="mt-2">
          Whoever signs in by this name has an account of their own. They are asked, and belong to the study once they
          accept.
        </Note>
      )}
      <Trouble error={invite.error} className="mt-2" />
      <Trouble error={remove.error} className="mt-2" />
      {invitations.length > 0 && (
        <div className="mt-3">
          <InvitationList invitations={invitations} />
        </div>
      )}
    </section>
  );
}

function raterColumns(
  invite: { isPending: boolean; again: (person: Person) => void },
  remove: ReturnType<typeof useRemoveRater>,
): Column<Person>[] {
  return [
    { key: "name", head: "Name", rowHeader: true, sortBy: (p) => p.name, cell: (p) => p.name },
    { key: "sign-in", head: "Signs in as", cell: (p) => p.signInName },
    {
      key: "state",
      head: "Account",
      cell: (p) =>
        p.accepted ? (
          <span className="inline-flex items-center gap-2">
            {p.hasPassword ? "can sign in" : "has not signed in yet"}
            {p.mailTrouble !== undefined && <span className="text-sm text-clay">No mail: {p.mailTrouble}.</span>}
            <Button disabled={invite.isPending} aria-label={`New link for ${p.name}`} onClick={() => invite.again(p)}>
              New link
            </Button>
          </span>
        ) : (
          "was asked, has not accepted yet"
        ),
    },
    { key: "declared", head: "Expectation", cell: (p) => (p.declared ? "said" : "not said yet") },
    {
      key: "remove",
      head: <span className="sr-only">Take out</span>,
      align: "right",
      cell: (p) => (
        <Button
          disabled={remove.isPending}
          aria-label={`Take out ${p.name}`}
          onClick={() => remove.mutate(p.accountId)}
        >
          Take out
        </Button>
      ),
    },
  ];
}
