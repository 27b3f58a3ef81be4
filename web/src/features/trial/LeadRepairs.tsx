import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { count, moment } from "../../ui/format";
import { Query } from "../../ui/Query";
import { ChangedFiles } from "../desk/reading";
import { useStudy } from "../study";
import {
  RepairDialog,
  repairableOf,
  repairPictureAt,
  repairsOf,
  summaryWords,
  useRepairAnswer,
  resultOfRepair,
  TrialItems,
} from "../evidence";

const NOTHING: ReadonlyMap<string, string> = new Map();

/** What people changed of an answer's code so that it can be tried, and making a repair oneself. */
export function LeadRepairs({ answerId }: { answerId: string }) {
  const study = useStudy();
  const repairs = useQuery(repairsOf(study.id, answerId));
  const [repairing, setRepairing] = useState(false);
  return (
    <section aria-label="Repairs" className="mt-5 border-t border-rule pt-3">
      <div className="flex flex-wrap items-baseline gap-3">
        <h3 className="text-base">Repairs</h3>
        {study.role === "LEAD" && !study.blind && (
          <Button className="ml-auto" onClick={() => setRepairing(true)}>
            Repair the code …
          </Button>
        )}
      </div>
      <Query of={repairs} what="the repairs">
        {(all) =>
          all.length === 0 ? (
            <p className="text-ink-soft">Nobody changed its code yet.</p>
          ) : (
            <List all={all} answerId={answerId} />
          )
        }
      </Query>
      {repairing && <Repairing answerId={answerId} onClose={() => setRepairing(false)} />}
    </section>
  );
}

function List({ all, answerId }: { all: Schemas["RepairView"][]; answerId: string }) {
  return (
    <ul className="mt-1 grid gap-2">
      {all.map((repair) => (
        <li key={repair.id}>
          <details>
            <summary>
              {count(repair.lines, "line", "lines")}: {summaryWords(repair.summary)}
              <span className="text-ink-soft">
                {" "}
                · {repair.author}, {moment(repair.at)}
              </span>
            </summary>
            <ChangedFiles files={repair.changes} start={NOTHING} layout="inline" />
            <WhatCame answerId={answerId} repairId={repair.id} />
          </details>
        </li>
      ))}
    </ul>
  );
}

function WhatCame({ answerId, repairId }: { answerId: string; repairId: string }) {
  const study = useStudy();
  const result = useQuery(resultOfRepair(study.id, answerId, repairId));
  return (
    <div className="mt-2">
      <Query of={result} what="what came of it">
        {(came) => <TrialItems result={came} pictureAt={repairPictureAt(study.id, answerId, repairId)} />}
      </Query>
    </div>
  );
}

function Repairing({ answerId, onClose }: { answerId: string; onClose: () => void }) {
  const study = useStudy();
  const files = useQuery(repairableOf(study.id, answerId));
  const repair = useRepairAnswer(study.id, answerId);
  return (
    <RepairDialog
      title="Repair the code of this answer"
      files={files.data}
      failure={files.error}
      onTry={(changed) => repair.mutateAsync(changed)}
      pictureAt={(repairId, place) => repairPictureAt(study.id, answerId, repairId)(place)}
      onClose={onClose}
    />
  );
}
