import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { sheetKeys } from "./api";
import { deliver } from "./deliver";
import { othersKept, outboxKeys, sheetsWithKept } from "./kept";
import { Outbox } from "./outbox";

/** Sends what an earlier visit left behind in this browser, and says for which sheets that needs the rater. */
export function LeftBehind({ accountId }: { accountId: string }) {
  const client = useQueryClient();
  const [open, setOpen] = useState<string[]>([]);
  useEffect(() => {
    const outboxes = sheetsWithKept(accountId).map((sheetId) => ({
      sheetId,
      outbox: new Outbox({
        store: localStorage,
        ...outboxKeys(accountId, sheetId),
        deliver: (change) => deliver(accountId, sheetId, change),
        onSaved: () => undefined,
        newId: () => crypto.randomUUID(),
      }),
    }));
    const again = () =>
      void Promise.all(outboxes.map((o) => o.outbox.flush())).then(() => {
        const left = outboxes.filter(({ outbox }) => {
          const { pending, conflicts, refusals } = outbox.state();
          return pending.size + conflicts.size + refusals.size > 0;
        });
        setOpen(left.map((o) => o.sheetId));
        if (outboxes.length > left.length) {
          void client.invalidateQueries({ queryKey: sheetKeys.all });
        }
      });
    again();
    window.addEventListener("online", again);
    return () => {
      window.removeEventListener("online", again);
      outboxes.forEach((o) => o.outbox.retire());
    };
  }, [client, accountId]);
  const others = othersKept(accountId);
  if (open.length === 0) {
    return others === 0 ? null : (
      <Note tone="info" role="status" className="mb-5">
        This browser also keeps changes of somebody else who signed in here, to {count(others, "sheet", "sheets")}. They
        are sent when that person signs in again.
      </Note>
    );
  }
  return (
    <Note tone="caution" role="status" className="mb-5">
      This browser keeps changes that are not sent yet:{" "}
      {open.map((sheetId, i) => (
        <Link key={sheetId} to={`/sheets/${sheetId}`} className="mr-2 text-tarn underline underline-offset-4">
          sheet {i + 1}
        </Link>
      ))}
    </Note>
  );
}
