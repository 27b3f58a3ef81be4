import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { moment } from "../../ui/format";
import { Query, WORKED_OUT } from "../../ui/Query";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { Trouble } from "../../ui/Trouble";
import { useTitle } from "../../ui/useTitle";
import { HiddenStandings, Views } from "../recommendation";
import { useStudy } from "../study";
import { memosOfStudy, useBeginMemo } from "./api";

/** The versions of a study's memo. */
export function MemosPage() {
  const study = useStudy();
  const hidden = study.stage === "GRADING";
  const memos = useQuery({ ...memosOfStudy(study.id), enabled: !hidden });
  useTitle(`Memo · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <div className="max-w-3xl">
      <Views />
      <h1>Memo</h1>
      <p className="mt-1 mb-4 text-ink-soft">
        What is handed to whoever decides and pays. Its figures come from the study and live until it is signed; your
        words stand between them.
      </p>
      <Query of={memos} what="the memo" long={WORKED_OUT}>
        {(all) => (
          <>
            {all.versions.length === 0 && !all.mayBegin && <p>The lead has not begun it yet.</p>}
            <ol className="mb-5">
              {[...all.versions].reverse().map((v) => (
                <Version key={v.number} version={v} />
              ))}
            </ol>
            {all.mayBegin && <Begin first={all.versions.length === 0} />}
          </>
        )}
      </Query>
    </div>
  );
}

function Version({ version }: { version: Schemas["MemoHead"] }) {
  return (
    <li className="border-t border-rule py-3 last:border-b">
      <Link to={String(version.number)} className="font-serif text-lg">
        Version {version.number}
      </Link>
      <p className="text-sm text-ink-soft">
        {version.signed
          ? `signed by ${version.signed.by}, ${moment(version.signed.at)}`
          : `being written, begun by ${version.begunBy}, ${moment(version.begunAt)}`}
      </p>
      {version.change && <p className="mt-1 [overflow-wrap:anywhere]">{version.change}</p>}
    </li>
  );
}

function Begin({ first }: { first: boolean }) {
  const study = useStudy();
  const begin = useBeginMemo(study.id);
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const go = (change: string) => begin.mutate(change, { onSuccess: (memo) => void navigate(String(memo.head.number)) });
  return (
    <>
      <Button tone="primary" disabled={begin.isPending} onClick={() => (first ? go("") : setAsking(true))}>
        {first ? "Begin the memo" : "Begin a new version …"}
      </Button>
      {asking ? (
        <ReasonDialog
          title="A new version"
          label="What it says otherwise, and why"
          hint="It stands at the head of the new version. The one that is signed stays as it is."
          maxLength={LIMITS.BeginMemo.change}
          action="Begin it"
          busy={begin.isPending}
          error={begin.error?.message}
          onReason={go}
          onClose={() => setAsking(false)}
        >
          <p>It begins with what you wrote in the last one, on figures as they stand now.</p>
        </ReasonDialog>
      ) : (
        <Trouble error={begin.error} className="mt-3" />
      )}
    </>
  );
}
