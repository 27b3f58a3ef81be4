import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { Dialog } from "../../../ui/Dialog";
import { count } from "../../../ui/format";
import { Query } from "../../../ui/Query";
import { summaryWords, TrialItems } from "../../evidence";
import { repairPictureAt, resultOfRepair } from "./api";
import { ChangedFiles } from "../reading";

type Repair = Schemas["RepairOnSheet"];

const NOTHING: ReadonlyMap<string, string> = new Map();

type RepairsProps = { sheetId: string; answerId: string; repairs: Repair[] };

/** What people changed so that it can be tried; without their names. */
export function Repairs({ sheetId, answerId, repairs }: RepairsProps) {
  const [shown, setShown] = useState<Repair>();
  return repairs.length === 0 ? (
    <p className="text-ink-soft">none</p>
  ) : (
    <>
      <ul className="grid gap-0.5">
        {repairs.map((repair) => (
          <li key={repair.id}>
            <button
              type="button"
              className="text-left text-tarn underline underline-offset-4"
              onClick={() => setShown(repair)}
            >
              {count(repair.lines, "line", "lines")}: {summaryWords(repair.summary)}
              {repair.isOwn && " (yours)"}
            </button>
          </li>
        ))}
      </ul>
      {shown && (
        <Dialog
          wide
          open
          title={`A repair of ${count(shown.lines, "line", "lines")}: ${summaryWords(shown.summary)}`}
          onOpenChange={() => setShown(undefined)}
        >
          <ChangedFiles files={shown.changes} start={NOTHING} layout="inline" />
          <WhatCame sheetId={sheetId} answerId={answerId} repairId={shown.id} />
        </Dialog>
      )}
    </>
  );
}

function WhatCame({ sheetId, answerId, repairId }: { sheetId: string; answerId: string; repairId: string }) {
  const result = useQuery(resultOfRepair(sheetId, answerId, repairId));
  return (
    <div className="mt-4 border-t border-rule pt-3">
      <Query of={result} what="what came of it">
        {(came) => <TrialItems result={came} pictureAt={repairPictureAt(sheetId, answerId, repairId)} />}
      </Query>
    </div>
  );
}
