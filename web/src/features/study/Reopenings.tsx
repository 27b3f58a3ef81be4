import type { Schemas } from "../../api/client";
import { moment } from "../../ui/format";

/** When, by whom and why a closed brief was opened again; shown wherever the rule is. */
export function Reopenings({ reopenings }: { reopenings: Schemas["Reopening"][] }) {
  if (reopenings.length === 0) {
    return null;
  }
  return (
    <section className="mt-8">
      <h2 className="mb-2">Reopened</h2>
      <ol className="grid gap-3">
        {reopenings.map((r) => (
          <li key={r.reopenedAt} className="border-l-2 border-ochre pl-3">
            <p>
              {moment(r.reopenedAt)}, {r.by}: {r.reason}
            </p>
            <p className="text-sm text-ink-soft">Until then: {r.terms}.</p>
          </li>
        ))}
      </ol>
    </section>
  );
}
