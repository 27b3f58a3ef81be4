import { queryOptions, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Schemas, unwrap } from "../../api/client";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { count } from "../../ui/format";
import { Query } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { LevelMark } from "../rubric";
import { studyKeys, useStudy } from "../study";

type Cell = { first: number; second: number };

/** Two raters on one criterion, and the cell of their table that is looked into. */
export type CrossedPair = { criterionId: string; firstId: string; secondId: string; cell?: Cell };

const crossingOf = (studyId: string, { criterionId, firstId, secondId, cell }: CrossedPair) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "agreement", "crossing", criterionId, firstId, secondId, JSON.stringify(cell)),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/agreement/crossing", {
          params: {
            path: { studyId },
            query: {
              criterionId,
              firstId,
              secondId,
              ...(cell ? { firstLevel: cell.first, secondLevel: cell.second } : {}),
            },
          },
          signal,
        }),
      ),
  });

type CrossingProps = {
  pair: CrossedPair;
  names: { first: string; second: string };
  onCell: (cell: Cell | undefined) => void;
  onClose: () => void;
};

/** How often two raters gave the same answers which levels; a cell opens the answers behind it. */
export function Crossing({ pair, names, onCell, onClose }: CrossingProps) {
  const study = useStudy();
  const crossing = useQuery({ ...crossingOf(study.id, pair), placeholderData: (before) => before });
  return (
    <section aria-label={`${names.first} and ${names.second}`} className="mt-4 border-l-2 border-edge pl-4">
      <div className="mb-1 flex items-baseline gap-4">
        <h3>
          {names.first} and {names.second}
        </h3>
        <Button onClick={onClose}>Close</Button>
      </div>
      <Query of={crossing} what="what both gave">
        {({ counts, answers }) => (
          <>
            <Counts counts={counts} names={names} cell={pair.cell} onCell={onCell} />
            {pair.cell && <Behind answers={answers} cell={pair.cell} names={names} />}
          </>
        )}
      </Query>
    </section>
  );
}

type CountsProps = {
  counts: Schemas["Crossing"]["counts"];
  names: CrossingProps["names"];
  cell: Cell | undefined;
  onCell: CrossingProps["onCell"];
};

function Counts({ counts, names, cell, onCell }: CountsProps) {
  const highest = counts.length - 1;
  const most = Math.max(1, ...counts.flat());
  return (
    <div className="overflow-x-auto" role="region" aria-label="Levels that both gave" tabIndex={0}>
      <table className="border-collapse text-left">
        <caption className="sr-only">
          Answers by the level that {names.first} gave, in rows, and {names.second}, in columns
        </caption>
        <thead>
          <tr>
            <td className="pr-3 text-sm text-ink-soft">
              {names.first} ↓ {names.second} →
            </td>
            {counts.map((_, second) => (
              <th key={second} scope="col" className="px-1 pb-1 font-normal">
                <LevelMark level={second} highest={highest} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {counts.map((row, first) => (
            <tr key={first}>
              <th scope="row" className="pr-3 text-right font-normal">
                <LevelMark level={first} highest={highest} />
              </th>
              {row.map((n, second) => (
                <td key={second} className="p-0.5">
                  <CountCell
                    n={n}
                    share={n / most}
                    equal={first === second}
                    chosen={cell?.first === first && cell.second === second}
                    label={`${count(n, "answer", "answers")}: ${names.first} ${first}, ${names.second} ${second}`}
                    onChoose={(chosen) => onCell(chosen ? { first, second } : undefined)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

type CountCellProps = {
  n: number;
  share: number;
  equal: boolean;
  chosen: boolean;
  label: string;
  onChoose: (chosen: boolean) => void;
};

/** Where both gave the same, the frame is strong; how many there are, the number and the bar say. */
function CountCell({ n, share, equal, chosen, label, onChoose }: CountCellProps) {
  if (n === 0) {
    return <span className="block w-14 py-1 text-center text-ink-soft">·</span>;
  }
  return (
    <button
      type="button"
      aria-pressed={chosen}
      aria-label={label}
      onClick={() => onChoose(!chosen)}
      className={classes(
        "block w-14 rounded-leaf border px-1 py-0.5 text-center tabular-nums",
        equal ? "border-moss" : "border-rule",
        chosen ? "bg-heather-wash font-semibold" : "bg-vellum hover:border-ink",
      )}
    >
      {n}
      <span
        aria-hidden="true"
        className="mx-auto block h-1 bg-tarn"
        style={{ width: `${Math.max(6, share * 100)}%` }}
      />
    </button>
  );
}

type BehindProps = { answers: Schemas["CrossedAnswer"][]; cell: Cell; names: CrossingProps["names"] };

function Behind({ answers, cell, names }: BehindProps) {
  const candidates = useQuery(candidatesOfStudy(useStudy().id));
  return (
    <div className="mt-3">
      <p className="mb-1 text-sm text-ink-soft">
        {names.first} gave {cell.first}, {names.second} gave {cell.second}:
      </p>
      <Table
        caption="Answers behind the cell"
        saveAs="answers"
        rows={answers}
        rowKey={(a) => a.answerId}
        columns={[
          {
            key: "prompt",
            head: "Prompt",
            rowHeader: true,
            sortBy: (a) => a.promptTitle,
            cell: (a) => <Link to={`../answers/${a.promptId}?answer=${a.answerId}`}>{a.promptTitle}</Link>,
          },
          {
            key: "whose",
            head: "Whose",
            cell: (a) => {
              const index = candidates.data?.findIndex((c) => c.id === a.candidateId) ?? -1;
              return index < 0 ? null : (
                <CandidateName name={candidates.data?.[index]?.content.name ?? ""} index={index} />
              );
            },
          },
        ]}
      />
    </div>
  );
}
