import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useSettledText } from "../../ui/useSettledText";
import { useTitle } from "../../ui/useTitle";
import { InvitationList } from "../account";
import { AccountsTable } from "./AccountsTable";
import { accountsWith } from "./api";
import { MakeAccount } from "./MakeAccount";

type Invitation = Schemas["Invitation"];

/** Everybody who has an account, and what they may do. */
export function AccountsPage() {
  const [part, setPart] = useState("");
  const settled = useSettledText(part);
  const [invitations, setInvitations] = useState<Invitation[]>([]);
  const [mailed, setMailed] = useState<string>();
  const show = (made: Invitation) =>
    setInvitations((old) => [...old.filter((o) => o.accountId !== made.accountId), made]);
  useTitle("Accounts");
  return (
    <>
      <div className="flex items-baseline gap-4">
        <h1>Accounts</h1>
        <span className="ml-auto">
          <MakeAccount
            onMade={(made) => {
              setMailed(made.invitation === undefined ? made.account.displayName : undefined);
              if (made.invitation !== undefined) {
                show(made.invitation);
              }
            }}
          />
        </span>
      </div>
      <p className="mt-1 max-w-prose text-ink-soft">
        Leads invite their raters themselves. Whoever looks after the accounts sees no study without being let in.
      </p>
      {mailed !== undefined && (
        <Note tone="good" role="status" className="mt-4">
          An invitation goes to {mailed} by mail.
        </Note>
      )}
      {invitations.length > 0 && (
        <div className="mt-4">
          <InvitationList invitations={invitations} />
        </div>
      )}
      <Field
        label="Find by name"
        type="search"
        className="mt-5 mb-3 max-w-xs"
        maxLength={LIMITS.MakeAccount.name}
        value={part}
        onChange={(e) => setPart(e.target.value)}
      />
      <FoundAccounts part={settled} onLink={show} />
    </>
  );
}

type FoundAccountsProps = { part: string; onLink: (made: Invitation) => void };

/** Those whose names have a part in them, page by page. */
function FoundAccounts({ part, onLink }: FoundAccountsProps) {
  const accounts = useInfiniteQuery(accountsWith(part));
  return (
    <Query of={accounts} what="the accounts">
      {({ pages }) => {
        const rows = pages.flatMap((p) => p.accounts);
        return rows.length === 0 ? (
          <p>Nobody here has this in their name.</p>
        ) : (
          <>
            <AccountsTable accounts={rows} onLink={onLink} />
            {accounts.hasNextPage && (
              <Button
                className="mt-3"
                disabled={accounts.isFetchingNextPage}
                onClick={() => void accounts.fetchNextPage()}
              >
                Show more
              </Button>
            )}
          </>
        );
      }}
    </Query>
  );
}
