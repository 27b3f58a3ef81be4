import { useQuery } from "@tanstack/react-query";
import { Button } from "../../ui/Button";
import { moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { myReminders, usePutAway } from "./api";

/** What leads have asked of whoever signed in, until it is put away. */
export function Reminders() {
  const reminders = useQuery(myReminders());
  const putAway = usePutAway();
  return reminders.data?.map((r) => (
    <Note key={r.id} tone="info" role="status" className="mb-3 flex items-start gap-3">
      <div className="min-w-0 flex-1">
        <p className="text-sm text-ink-soft">
          {r.by}, {moment(r.sentAt)}, about “{r.studyTitle}”
        </p>
        <p className="[overflow-wrap:anywhere] whitespace-pre-line">{r.words}</p>
      </div>
      <Button disabled={putAway.isPending} onClick={() => putAway.mutate(r.id)}>
        Put away
      </Button>
    </Note>
  ));
}
