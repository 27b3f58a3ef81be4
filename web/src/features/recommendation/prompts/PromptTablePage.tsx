import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { saveCsv } from "../../../ui/csv";
import { Choice, Tick } from "../../../ui/Field";
import { count } from "../../../ui/format";
import { Query, WORKED_OUT } from "../../../ui/Query";
import { useTitle } from "../../../ui/useTitle";
import { useStudy } from "../../study";
import { promptTableOf } from "../api";
import { HiddenStandings } from "../HiddenStandings";
import { type Mark, MARKS, type Shown, useShown } from "./address";
import { Views } from "../Views";
import { PromptRows } from "./PromptRows";

type View = Schemas["PromptTableView"];

const NAMES: Record<Mark, string> = {
  works: "whether it works",
  trials: "trials",
  points: "key points",
  outcome: "outcome",
  turns: "follow-ups",
  cost: "cost",
  time: "time",
};

/** What each candidate made of each prompt. */
export function PromptTablePage() {
  const study = useStudy();
  const { shown, ...turn } = useShown();
  const hidden = study.stage === "GRADING";
  const query = useQuery({ ...promptTableOf(study.id, shown), enabled: !hidden });
  const table = useRef<HTMLTableElement>(null);
  useTitle(`Prompt by prompt · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>Prompt by prompt</h1>
      <p className="mt-1 max-w-3xl text-ink-soft">
        Scores of 100 as raters gave them, a mean over attempts, not adjusted for hard prompts and strict raters. A
        score opens the answer.
      </p>
      <Query of={query} what="the table" long={WORKED_OUT}>
        {(view) => (
          <>
            <div className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-2">
              <AmongWhich view={view} shown={shown} onLook={turn.look} />
              <Marks marks={shown.marks} onMarks={turn.mark} />
            </div>
            {shown.marks.includes("works") && (
              <p className="mt-2 text-sm text-ink-soft">
                “Works 1 + 3 of 5”: of five raters who said so, one found that its code works as it is, three after a
                trivial repair.
              </p>
            )}
            {view.prompts === 0 ? (
              <p className="mt-4">No prompt of this sort counts.</p>
            ) : (
              <PromptRows ref={table} view={view} shown={shown} onSort={turn.sort} />
            )}
            <Pages view={view} onPage={turn.page} onSave={() => table.current && saveCsv(table.current, "prompts")} />
          </>
        )}
      </Query>
    </>
  );
}

type AmongProps = {
  view: View;
  shown: Shown;
  onLook: ReturnType<typeof useShown>["look"];
};

/** Which prompts are looked at: of a kind, a size, an area. */
function AmongWhich({ view, shown, onLook }: AmongProps) {
  return (
    <>
      <Choice
        label="Kind"
        className="w-44"
        value={shown.kindId ?? ""}
        options={[{ value: "", label: "all kinds" }, ...view.kinds.map((k) => ({ value: k.id, label: k.name }))]}
        onValue={(kind) => onLook({ kind: kind || undefined })}
      />
      {view.sizes.length > 1 && (
        <Choice
          label="Size"
          className="w-36"
          value={shown.size?.toLowerCase() ?? ""}
          options={[
            { value: "", label: "all sizes" },
            ...view.sizes.map((size) => ({ value: size.toLowerCase(), label: size.toLowerCase() })),
          ]}
          onValue={(size) => onLook({ size: size || undefined })}
        />
      )}
      {view.areas.length > 1 && (
        <Choice
          label="Area"
          className="w-44"
          value={shown.area ?? ""}
          options={[{ value: "", label: "all areas" }, ...view.areas.map((area) => ({ value: area, label: area }))]}
          onValue={(area) => onLook({ area: area || undefined })}
        />
      )}
    </>
  );
}

type MarksProps = { marks: Mark[]; onMarks: (marks: Mark[]) => void };

function Marks({ marks, onMarks }: MarksProps) {
  return (
    <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
      <legend className="mb-1 font-medium">Beside the score</legend>
      {MARKS.map((mark) => (
        <Tick
          key={mark}
          label={NAMES[mark]}
          checked={marks.includes(mark)}
          onTick={(on) => onMarks(MARKS.filter((m) => (m === mark ? on : marks.includes(m))))}
        />
      ))}
    </fieldset>
  );
}

/** As many rows as the server gives at once. */
const WINDOW = 100;

function Pages({ view, onPage, onSave }: { view: View; onPage: (to: number) => void; onSave: () => void }) {
  const last = view.from + view.rows.length;
  const windowed = view.prompts > view.rows.length;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3 text-sm print:hidden">
      {windowed && (
        <>
          <span role="status">
            {view.from + 1} to {last} of {count(view.prompts, "prompt", "prompts")}
          </span>
          <Button disabled={view.from === 0} onClick={() => onPage(Math.max(0, view.from - WINDOW))}>
            Earlier
          </Button>
          <Button disabled={last >= view.prompts} onClick={() => onPage(last)}>
            Later
          </Button>
        </>
      )}
      <button type="button" className="ml-auto text-tarn underline underline-offset-4" onClick={onSave}>
        Save as CSV{windowed && ", what is shown"}
      </button>
    </p>
  );
}
