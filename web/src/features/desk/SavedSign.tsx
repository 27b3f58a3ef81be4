import { Link } from "react-router";
import { count } from "../../ui/format";
import type { OutboxState } from "./outbox";

/** A quiet sign of what is saved, and a plain one of what is not yet. */
export function SavedSign({ outbox, fromCopy }: { outbox: OutboxState; fromCopy: boolean }) {
  const waiting = count(outbox.pending.size, "change", "changes");
  return (
    <span role="status" className="text-sm whitespace-nowrap">
      {outbox.connection === "unreachable" && (
        <span className="border-b-2 border-ochre">
          {outbox.trouble ?? "No connection:"} {waiting} kept here, sent when it is back
        </span>
      )}
      {outbox.connection === "signed-out" && (
        <span className="border-b-2 border-ochre">
          Signed out: {waiting} kept here. <Link to="/sign-in">Sign in again</Link>
        </span>
      )}
      {outbox.connection === "other-account" && (
        <span className="border-b-2 border-ochre">
          Somebody else signed in here: {waiting} of yours kept, sent when you sign in again
        </span>
      )}
      {outbox.connection === "sending" && <span className="text-ink-soft">Saving …</span>}
      {outbox.connection === "fine" && fromCopy && (
        <span className="border-b-2 border-ochre">No connection: the sheet as it was here last</span>
      )}
      {outbox.connection === "fine" && !fromCopy && (
        <span className="text-ink-soft">{outbox.pending.size > 0 ? "Saving …" : "All saved"}</span>
      )}
    </span>
  );
}
