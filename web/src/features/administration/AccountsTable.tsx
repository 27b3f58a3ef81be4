import { useState } from "react";
import { actingFor, type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { Tick } from "../../ui/Field";
import { type Column, Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { type Account, useDeactivate, useMakeLink, useReactivate, useSetRights } from "./api";

type AccountsTableProps = { accounts: Account[]; onLink: (made: Schemas["Invitation"]) => void };

/** Each account with what it may do; rights are ticked in place. */
export function AccountsTable({ accounts, onLink }: AccountsTableProps) {
  const own = actingFor();
  const rights = useSetRights();
  const reactivate = useReactivate();
  const link = useMakeLink();
  const [leaving, setLeaving] = useState<Account>();
  const actions: Column<Account> = {
    key: "actions",
    head: <span className="sr-only">What can be done</span>,
    align: "right",
    cell: (a) =>
      a.active ? (
        <span className="inline-flex gap-2">
          {a.id !== own && (
            <Button
              disabled={link.isPending}
              aria-label={`One-time link for ${a.displayName}`}
              onClick={() => link.mutate(a, { onSuccess: onLink })}
            >
              One-time link
            </Button>
          )}
          {a.id !== own && (
            <Button aria-label={`Deactivate ${a.displayName}`} onClick={() => setLeaving(a)}>
              Deactivate
            </Button>
          )}
        </span>
      ) : (
        <Button
          disabled={reactivate.isPending}
          aria-label={`Let ${a.displayName} in again`}
          onClick={() => reactivate.mutate(a)}
        >
          Let in again
        </Button>
      ),
  };
  return (
    <>
      <Table
        caption="Accounts"
        onOneLine
        rows={accounts}
        rowKey={(a) => a.id}
        columns={[...columns(rights), actions]}
      />
      <Trouble error={rights.error ?? reactivate.error ?? link.error} className="mt-2" />
      {leaving && <Leaving account={leaving} onClose={() => setLeaving(undefined)} />}
    </>
  );
}

function columns(rights: ReturnType<typeof useSetRights>): Column<Account>[] {
  return [
    { key: "name", head: "Name", rowHeader: true, sortBy: (a) => a.displayName, cell: (a) => a.displayName },
    { key: "sign-in", head: "Signs in as", sortBy: (a) => a.signInName, cell: (a) => a.signInName },
    { key: "state", head: "State", sortBy: stateOf, cell: stateOf },
    right("May begin studies", "mayBringIn", rights),
    right("Administrator", "administrator", rights),
  ];
}

function stateOf(account: Account): string {
  return account.active ? (account.canSignIn ? "in use" : "has not come in yet") : "has left";
}

function right(
  head: string,
  key: keyof Schemas["SetRights"],
  rights: ReturnType<typeof useSetRights>,
): Column<Account> {
  return {
    key,
    head,
    cell: (account) => (
      <Tick
        label={<span className="sr-only">{`${head}: ${account.displayName}`}</span>}
        checked={account[key]}
        disabled={rights.isPending || !account.active}
        onTick={(on) =>
          rights.mutate({
            account,
            rights: { mayBringIn: account.mayBringIn, administrator: account.administrator, [key]: on },
          })
        }
      />
    ),
  };
}

/** What deactivating does, before it is done. */
function Leaving({ account, onClose }: { account: Account; onClose: () => void }) {
  const deactivate = useDeactivate();
  return (
    <Confirm
      title={`Deactivate ${account.displayName}`}
      open
      onOpenChange={(open) => !open && onClose()}
      action="Deactivate"
      busy={deactivate.isPending}
      onConfirm={() => deactivate.mutate(account, { onSuccess: onClose })}
    >
      <p>
        They are signed out everywhere at once and cannot sign in. Their grades, and all that they wrote, stay where
        they are. They can be let in again.
      </p>
      <Trouble error={deactivate.error} className="mt-2" />
    </Confirm>
  );
}
