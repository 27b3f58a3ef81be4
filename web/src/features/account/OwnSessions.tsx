import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { moment } from "../../ui/format";
import { type Column, Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { ownAccount, signOutElsewhere, signOutOf } from "./api";

type Session = Schemas["OwnSession"];

/** Where somebody is signed in, each to be ended by itself. */
export function OwnSessions({ sessions }: { sessions: Session[] }) {
  const client = useQueryClient();
  const taken = { onSuccess: (own: Schemas["OwnAccount"]) => client.setQueryData(ownAccount().queryKey, own) };
  const all = useMutation({ mutationFn: signOutElsewhere, ...taken });
  const one = useMutation({ mutationFn: signOutOf, ...taken });
  const columns: Column<Session>[] = [
    {
      key: "device",
      head: "Browser",
      rowHeader: true,
      cell: (s) => `${s.device ?? "Signed in before this was kept"}${s.here ? " (this one)" : ""}`,
    },
    { key: "address", head: "From", cell: (s) => s.address ?? "" },
    { key: "begun", head: "Since", cell: (s) => moment(s.begunAt) },
    { key: "used", head: "Last used", cell: (s) => moment(s.lastUsedAt) },
    {
      key: "end",
      head: <span className="sr-only">Sign out</span>,
      align: "right",
      cell: (s) =>
        !s.here && (
          <Button
            disabled={one.isPending}
            aria-label={`Sign out of ${s.device ?? "it"}, last used ${moment(s.lastUsedAt)}`}
            onClick={() => one.mutate(s.handle)}
          >
            Sign out
          </Button>
        ),
    },
  ];
  return (
    <section className="mt-10">
      <h2 className="mb-2">Where you are signed in</h2>
      <Table caption="Where you are signed in" onOneLine rows={sessions} rowKey={(s) => s.handle} columns={columns} />
      {sessions.length > 1 && (
        <Button className="mt-3" disabled={all.isPending} onClick={() => all.mutate()}>
          Sign out everywhere else
        </Button>
      )}
      <Trouble error={all.error ?? one.error} className="mt-2" />
    </section>
  );
}
