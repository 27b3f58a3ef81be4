import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Tick } from "../../ui/Field";
import { count } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { promptsOfStudy, specimensOfStudy } from "../prompt";
import { calibrationsOf, useBegin } from "./api";
import { STAGES } from "./words";

type Prompt = Schemas["PromptView"];

/** Before the round: raters learn the ruler together on a few prompts, which count nowhere. */
export function CalibrateFirst({ studyId }: { studyId: string }) {
  const [calibrations, prompts] = useQueries({ queries: [calibrationsOf(studyId), promptsOfStudy(studyId)] });
  const [choosing, setChoosing] = useState(false);
  const all = calibrations.data ?? [];
  const busy = all.some((c) => c.stage === "GRADING" || c.stage === "AGAIN");
  return (
    <section className="mt-8">
      <h2 className="mb-1">Calibrate first</h2>
      <p className="mb-3 max-w-3xl text-ink-soft">
        Everybody grades the same two to five prompts, blind. Once the last has sent in, all see each other’s grades and
        talk, and you mend anchors. These prompts count nowhere from then on.
      </p>
      <CalibrationList calibrations={all} />
      <Button disabled={busy || !prompts.data} onClick={() => setChoosing(true)}>
        {all.length === 0 ? "Calibrate …" : "Calibrate by other prompts …"}
      </Button>
      <Trouble error={calibrations.error ?? prompts.error} className="mt-2" />
      {choosing && prompts.data && (
        <BeginDialog studyId={studyId} prompts={prompts.data} onClose={() => setChoosing(false)} />
      )}
    </section>
  );
}

function CalibrationList({ calibrations }: { calibrations: Schemas["CalibrationSummary"][] }) {
  return (
    <ul className="mb-3">
      {calibrations.map((c) => (
        <li
          key={c.number}
          className="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1.5 [overflow-wrap:anywhere] last:border-b"
        >
          <Link to={`/calibrations/${c.studyId}/${c.number}`} className="text-tarn underline underline-offset-4">
            Calibration {c.number}
          </Link>
          <span className="text-sm text-ink-soft">{c.prompts.join(", ")}</span>
          <span className="ml-auto text-sm">
            {c.stage === "GRADING" || c.stage === "AGAIN"
              ? `${c.sent} of ${count(c.sheets, "sheet", "sheets")} sent in`
              : STAGES[c.stage]}
            {c.reached !== undefined && (c.reached ? ", reached the floor" : ", short of the floor")}
          </span>
        </li>
      ))}
    </ul>
  );
}

function hint(prompt: Prompt, specimens: Schemas["SpecimenView"][] = []): string {
  const own = specimens.filter((s) => s.promptId === prompt.id).length;
  return own === 0
    ? prompt.kind.name
    : `${prompt.kind.name}, ${count(own, "answer", "answers")} with levels from the bank`;
}

type BeginDialogProps = { studyId: string; prompts: Prompt[]; onClose: () => void };

function BeginDialog({ studyId, prompts, onClose }: BeginDialogProps) {
  const begin = useBegin(studyId);
  const specimens = useQuery(specimensOfStudy(studyId));
  const [chosen, setChosen] = useState<string[]>([]);
  const free = prompts.filter((p) => p.calibration === undefined && p.fault === undefined);
  const { most } = LIMITS.Begin.promptIds;
  const enough = chosen.length >= 2 && chosen.length <= most;
  return (
    <Dialog title="Calibrate by which prompts?" open onOpenChange={(open) => !open && onClose()}>
      <p className="text-sm text-ink-soft">
        Two to five, best of the kinds that matter most. They stay out of the round and of every figure. What the bank
        gave levels to lies among the other answers, and is the reference.
      </p>
      <ul className="mt-3 grid max-h-[50vh] gap-1 overflow-y-auto">
        {free.map((p) => (
          <li key={p.id}>
            <Tick
              checked={chosen.includes(p.id)}
              label={p.content.title || "Without a title"}
              hint={hint(p, specimens.data)}
              disabled={!chosen.includes(p.id) && chosen.length >= most}
              onTick={(on) => setChosen(on ? [...chosen, p.id] : chosen.filter((id) => id !== p.id))}
            />
          </li>
        ))}
      </ul>
      <Trouble error={begin.error} className="mt-2" />
      <div className="mt-4 flex items-center justify-end gap-2">
        <span className="mr-auto text-sm" role="status">
          {count(chosen.length, "prompt", "prompts")} chosen
        </span>
        <Button onClick={onClose}>Not now</Button>
        <Button
          tone="primary"
          disabled={!enough || begin.isPending}
          onClick={() => begin.mutate(chosen, { onSuccess: onClose })}
        >
          Lay them before the raters
        </Button>
      </div>
    </Dialog>
  );
}
