import { useState } from "react";
import { Link } from "react-router";
import { Button } from "../../../ui/Button";
import { count, fixed, percent } from "../../../ui/format";
import { SetAsideDialog } from "../../prompt";
import { useStudy } from "../../study";
import { Chosen, Panel } from "./Panel";
import type { ViewProps } from "./Workbench";

/** Which prompts part raters; a faulty one is set aside from here. */
export function Prompts({ narrowed, whole, filter, narrow }: ViewProps) {
  return (
    <Panel title="Prompts" aside="of what parts raters" how={<How />}>
      <ul>
        {narrowed.prompts.map((prompt) => {
          const chosen = filter.prompt === prompt.promptId;
          const without = whole?.withoutPrompt.find((w) => w.promptId === prompt.promptId)?.alpha.value;
          return (
            <li key={prompt.promptId} className="border-t border-rule first:border-t-0">
              <Chosen
                chosen={chosen}
                onChoose={(on) => narrow({ prompt: on ? prompt.promptId : undefined })}
                className="flex w-full items-baseline gap-1.5 px-1 py-0.5"
              >
                <span className="w-10 shrink-0 font-medium tabular-nums">{percent(prompt.share)}</span>
                <span className="min-w-0 flex-1">
                  <span className="line-clamp-2 break-words">{prompt.title}</span>
                  <span className="block text-xs text-ink-soft">
                    {prompt.apart === prompt.pairs
                      ? count(prompt.pairs, "pair", "pairs")
                      : `${String(prompt.apart)} of ${String(prompt.pairs)} pairs part`}
                    {without !== undefined && `, α without it ${fixed(without, 2)}`}
                  </span>
                </span>
              </Chosen>
              {chosen && <Deeds promptId={prompt.promptId} alpha={[whole?.alpha.value, without]} />}
            </li>
          );
        })}
      </ul>
      {narrowed.prompts.length === 0 && <p>None of these has grades from two raters.</p>}
    </Panel>
  );
}

type DeedsProps = { promptId: string; alpha: [with_: number | undefined, without: number | undefined] };

function Deeds({ promptId, alpha: [now, without] }: DeedsProps) {
  const [asking, setAsking] = useState(false);
  return (
    <div className="flex items-baseline gap-3 pb-1 pl-12">
      <Link to={`../prompts/${promptId}`}>Its page</Link>
      {useStudy().stage === "GRADING" && <Button onClick={() => setAsking(true)}>Set it aside …</Button>}
      {asking && (
        <SetAsideDialog promptId={promptId} onClose={() => setAsking(false)}>
          {now !== undefined && without !== undefined && (
            <p>
              α on this criterion is {fixed(now, 2)}, and without the prompt it would be {fixed(without, 2)}. Raters who
              part are no reason; a prompt that can be read in two ways is.
            </p>
          )}
        </SetAsideDialog>
      )}
    </div>
  );
}

function How() {
  return (
    <>
      <p>
        What of the disagreement of ordinal α comes from the answers to each prompt, its wordings counted as one, and
        how many pairs of grades part, of how many there are. “α without it” is of all other grades.
      </p>
      <p>
        Setting one aside needs a reason, stays on record, and can be undone; answers and grades stay.{" "}
        <a href="#splits-table">The answers as a table</a>
      </p>
    </>
  );
}
