import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { count, fixed, moment, percent } from "../../ui/format";
import { Markdown } from "../../ui/Markdown";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useStudy } from "../study";
import { bank, bankPrompt, useTakeFromBank } from "./api";
import { SaidLevels } from "./Specimens";

/** Takes a prompt that the team has kept, with how it did before. */
export function BankPicker({ kind }: { kind: Schemas["KindView"] }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button aria-label={`From the bank, of kind ${kind.name}`} onClick={() => setOpen(true)}>
        From the bank
      </Button>
      <Dialog title="The team’s prompts" open={open} onOpenChange={setOpen}>
        <Shelf kind={kind} />
      </Dialog>
    </>
  );
}

function Shelf({ kind }: { kind: Schemas["KindView"] }) {
  const kept = useQuery(bank());
  const [chosen, setChosen] = useState<string>();
  return (
    <Query of={kept} what="the bank">
      {(all) =>
        all.length === 0 ? (
          <p>Nothing is kept yet. A prompt’s page offers to keep it for other studies.</p>
        ) : (
          <>
            <ul className="mb-3">
              {/* Prompts of this kind first; a prompt may serve another kind too. */}
              {[...all]
                .sort((a, b) => Number(b.kind === kind.name) - Number(a.kind === kind.name))
                .map((entry) => (
                  <li key={entry.bankPromptId} className="border-t border-rule last:border-b">
                    <button
                      type="button"
                      aria-expanded={entry.bankPromptId === chosen}
                      className="flex w-full items-baseline gap-3 py-1.5 text-left hover:bg-heather-wash"
                      onClick={() => setChosen(entry.bankPromptId === chosen ? undefined : entry.bankPromptId)}
                    >
                      <span className="font-medium">{entry.title || "Without a title"}</span>
                      <span className="ml-auto text-sm whitespace-nowrap text-ink-soft">
                        {entry.kind}
                        {entry.specimens > 0 && ` · ${count(entry.specimens, "answer", "answers")} with levels`} ·{" "}
                        {count(entry.studies, "study", "studies")}
                      </span>
                    </button>
                    {entry.bankPromptId === chosen && <Kept bankPromptId={entry.bankPromptId} kind={kind} />}
                  </li>
                ))}
            </ul>
          </>
        )
      }
    </Query>
  );
}

function Kept({ bankPromptId, kind }: { bankPromptId: string; kind: Schemas["KindView"] }) {
  const study = useStudy();
  const kept = useQuery(bankPrompt(bankPromptId));
  const take = useTakeFromBank(study.id);
  const navigate = useNavigate();
  return (
    <Query of={kept} what="the prompt">
      {(prompt) => (
        <div className="pb-3 pl-4">
          {[...prompt.versions].reverse().map((v, i) => (
            <div key={v.number} className="mt-2">
              <p className="flex items-baseline gap-3 text-sm">
                Version {v.number}, kept {moment(v.savedAt)} by {v.savedBy}
                <Button
                  className="ml-auto"
                  disabled={take.isPending}
                  onClick={() =>
                    take.mutate(
                      { bankPromptId, version: v.number, kindId: kind.id },
                      { onSuccess: (added) => void navigate(added.id) },
                    )
                  }
                >
                  Take version {v.number}
                </Button>
              </p>
              <BroughtAlong specimens={v.specimens} />
              {i === 0 && <Markdown text={v.content.request} className="mt-1 max-h-40 overflow-y-auto text-sm" />}
            </div>
          ))}
          <History uses={prompt.uses} />
          {take.isError && <Note tone="trouble">{take.error.message}</Note>}
        </div>
      )}
    </Query>
  );
}

/** Answers that a version brings along, for raters to calibrate by. */
function BroughtAlong({ specimens }: { specimens: Schemas["SpecimenOutline"][] }) {
  if (specimens.length === 0) {
    return null;
  }
  return (
    <div className="mt-1 text-sm">
      <p>Brings along {count(specimens.length, "answer", "answers")} to calibrate by:</p>
      <ul className="list-disc pl-5">
        {specimens.map((s, i) => (
          <li key={i} className="[overflow-wrap:anywhere]">
            <SaidLevels levels={s.levels} />
            <span className="block truncate text-ink-soft">{s.beginning}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** How the prompt did in each study that took it. */
export function History({ uses }: { uses: Schemas["BankUse"][] }) {
  if (uses.length === 0) {
    return <p className="mt-2 text-sm text-ink-soft">No study has taken it yet.</p>;
  }
  return (
    <ul className="mt-2 grid gap-1 text-sm">
      {uses.map((use, i) => (
        <li key={use.studyId ?? i}>
          <strong className="font-medium">{use.study ?? "A study of others"}</strong>, version {use.version}:{" "}
          {use.showing
            ? `${count(use.showing.sheets, "sheet", "sheets")}; ${
                use.showing.withinOne.value === undefined
                  ? "no two raters"
                  : `raters within one level ${percent(use.showing.withinOne.value)}`
              }; ${
                use.showing.apart.value === undefined
                  ? "one candidate"
                  : `told candidates apart by ${fixed(use.showing.apart.value, 0)} points`
              }${isWornOut(use.showing) ? "; worn out, as even the lowest candidate is near the top" : ""}`
            : "nothing to tell yet"}
        </li>
      ))}
    </ul>
  );
}

/** Points of 100 from which on a prompt tells candidates no more. */
const NEAR_THE_TOP = 90;

function isWornOut(showing: NonNullable<Schemas["BankUse"]["showing"]>): boolean {
  return showing.lowest.value !== undefined && showing.lowest.value >= NEAR_THE_TOP;
}
