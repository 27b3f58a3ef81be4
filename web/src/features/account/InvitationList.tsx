import { at } from "../../api/base";
import type { Schemas } from "../../api/client";
import { CopyButton } from "../../ui/CopyButton";
import { Note } from "../../ui/Note";

function address(token: string): string {
  return `${location.origin}${at("/welcome")}#${token}`;
}

/** One-time links to pass on. They are shown this once; the server keeps only their hashes. */
export function InvitationList({ invitations }: { invitations: Schemas["Invitation"][] }) {
  return (
    <Note tone="caution">
      <p>
        Pass each link on to its rater. With it they set a password, once, within 14 days. The links are shown only now.
      </p>
      <ul className="mt-2 grid gap-2">
        {invitations.map((i) => (
          <li key={i.accountId} className="flex flex-wrap items-center gap-2">
            <span className="font-medium">
              {i.name} ({i.signInName})
            </span>
            <code className="font-mono text-sm break-all">{address(i.token)}</code>
            <CopyButton text={address(i.token)} label="Copy" />
          </li>
        ))}
      </ul>
    </Note>
  );
}
