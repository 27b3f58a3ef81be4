import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { day } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { deletedStudies, undoDeletion } from "./api";

/** Studies that stand deleted, until when each can be brought back; nothing where there is none. */
export function DeletedStudies() {
  const deleted = useQuery(deletedStudies());
  const all = deleted.data ?? [];
  return all.length === 0 ? null : (
    <section className="mt-10">
      <h2 className="mb-1">Deleted</h2>
      <ul>
        {all.map((study) => (
          <OneDeleted key={study.id} study={study} />
        ))}
      </ul>
    </section>
  );
}

function OneDeleted({ study }: { study: Schemas["DeletedStudy"] }) {
  const client = useQueryClient();
  const undo = useMutation({
    mutationFn: () => undoDeletion(study.id),
    onSettled: () => client.invalidateQueries(),
  });
  return (
    <li className="border-t border-rule py-2 last:border-b">
      <div className="flex items-baseline gap-3">
        <div className="min-w-0 flex-1">
          <span className="[overflow-wrap:anywhere]">{study.title}</span>
          <p className="text-sm text-ink-soft">
            Deleted {day(study.deletedAt)} by {study.deletedBy}; gone for good after {day(study.goesAt)}, from backups
            by {day(study.inBackupsUntil)}.
          </p>
        </div>
        {study.role === "LEAD" && (
          <Button disabled={undo.isPending} aria-label={`Bring back ${study.title}`} onClick={() => undo.mutate()}>
            Bring back
          </Button>
        )}
      </div>
      <Trouble error={undo.error} className="mt-1" />
    </li>
  );
}
