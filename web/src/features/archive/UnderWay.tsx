import { type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";

type UnderWayProps = { job: Schemas["ImportView"]; givingUp: boolean; onGiveUp: (id: string) => void };

/** How far an archive is on its way in; it goes on when the page is left. */
export function UnderWay({ job, givingUp, onGiveUp }: UnderWayProps) {
  const share = job.total > 0 ? job.done / job.total : undefined;
  const stage = job.state === "WAITING" ? "waiting for its turn" : job.stage || "beginning";
  return (
    <section className="border border-edge bg-vellum p-5" aria-label="On its way in">
      <p className="flex flex-wrap items-baseline justify-between gap-3">
        <span className="font-medium break-words">{job.file}</span>
        <span className="text-sm text-ink-soft tabular-nums">
          {stage}
          {job.total > 1 && `, ${String(Math.round(100 * (share ?? 0)))} %`}
        </span>
      </p>
      <div
        role="progressbar"
        aria-label={stage}
        aria-valuemin={0}
        aria-valuemax={100}
        {...(share === undefined ? {} : { "aria-valuenow": Math.round(100 * share) })}
        className="mt-2 h-2 border border-edge bg-paper"
      >
        <div className="h-full bg-moss" style={{ width: `${String(100 * (share ?? 0))}%` }} />
      </div>
      <p className="mt-3 flex flex-wrap items-center justify-between gap-3 text-sm">
        <span>You may leave this page; it goes on, and this page finds it again.</span>
        <Button disabled={givingUp} onClick={() => onGiveUp(job.id)}>
          {givingUp ? "Giving up …" : "Give it up"}
        </Button>
      </p>
    </section>
  );
}
