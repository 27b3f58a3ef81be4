import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { Query } from "../../../ui/Query";
import { comparisonOf } from "../api";
import { ChangedFiles, type DiffLayout } from "./ChangedFiles";

type Sheet = Schemas["SheetView"];

export type Compared = { first: number; second: number };

type ComparisonProps = {
  sheet: Sheet;
  compared: Compared;
  layout: DiffLayout;
  onCompare: (compared: Compared) => void;
  onClose: () => void;
};

const NOTHING: ReadonlyMap<string, string> = new Map();

/** The code of two answers against each other. */
export function Comparison({ sheet, compared, layout, onCompare, onClose }: ComparisonProps) {
  const first = sheet.answers[compared.first];
  const second = sheet.answers[compared.second];
  return (
    <section
      aria-label="Two answers compared"
      tabIndex={0}
      data-column="comparison"
      className="min-h-0 flex-1 overflow-y-auto px-4 py-2"
    >
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h2 className="text-base">The code of</h2>
        <Which
          sheet={sheet}
          label="First answer"
          value={compared.first}
          onValue={(n) => onCompare({ ...compared, first: n })}
        />
        <span>against</span>
        <Which
          sheet={sheet}
          label="Second answer"
          value={compared.second}
          onValue={(n) => onCompare({ ...compared, second: n })}
        />
        <Button className="ml-auto" onClick={onClose}>
          Back to the answers
        </Button>
      </div>
      {first && second && first !== second ? (
        <Compare sheetId={sheet.id} first={first} second={second} layout={layout} />
      ) : (
        <p className="text-ink-soft">Choose two answers.</p>
      )}
    </section>
  );
}

type WhichProps = { sheet: Sheet; label: string; value: number; onValue: (value: number) => void };

function Which({ sheet, label, value, onValue }: WhichProps) {
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(e) => onValue(Number(e.target.value))}
      className="rounded-leaf border border-edge bg-vellum px-2 py-0.5"
    >
      {sheet.answers.map((a, i) => (
        <option key={a.id} value={i}>
          Answer {a.number}
        </option>
      ))}
    </select>
  );
}

type Answer = Sheet["answers"][number];

function Compare({
  sheetId,
  first,
  second,
  layout,
}: {
  sheetId: string;
  first: Answer;
  second: Answer;
  layout: DiffLayout;
}) {
  const comparison = useQuery(comparisonOf(sheetId, first.id, second.id));
  return (
    <Query of={comparison} what="the comparison">
      {(files) =>
        files.length === 0 ? (
          <p className="text-ink-soft">
            {first.hasCode || second.hasCode ? "Their code is the same." : "Neither of them has code."}
          </p>
        ) : (
          <ChangedFiles
            files={files}
            start={NOTHING}
            layout={layout}
            sides={{ left: `answer ${first.number}`, right: `answer ${second.number}` }}
          />
        )
      }
    </Query>
  );
}
