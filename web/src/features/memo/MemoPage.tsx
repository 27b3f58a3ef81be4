import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { Query, WORKED_OUT } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { HiddenStandings, Views } from "../recommendation";
import { useStudy } from "../study";
import { oneMemo } from "./api";
import { DraftMemo } from "./DraftMemo";
import { SignedMemo } from "./SignedMemo";

/** One version of the memo: written while it is a draft, read once it is signed. */
export function MemoPage() {
  const study = useStudy();
  const { number = "" } = useParams();
  const which = { studyId: study.id, number: Number(number) };
  const hidden = study.stage === "GRADING";
  const memo = useQuery({ ...oneMemo(which), enabled: !hidden });
  useTitle(`Memo, version ${number} · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <Query of={memo} what="the memo" long={WORKED_OUT}>
        {(view) =>
          view.mayWrite ? (
            <DraftMemo key={number} which={which} memo={view} />
          ) : (
            <SignedMemo which={which} memo={view} />
          )
        }
      </Query>
    </>
  );
}
