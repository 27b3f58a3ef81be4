import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { count, moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { ProposeAnchor } from "../rubric";
import { codeOfSplit, oneSplit } from "./api";
import { ClosingSteps } from "./ClosingSteps";
import { GivenLevels, Looks, standsAt } from "./GivenLevels";
import { ReadAnswer } from "../desk/reading";
import { SaidByRaters } from "./SaidByRaters";
import { StanceForm } from "./StanceForm";
import { Talk } from "./Talk";

type Split = Schemas["SplitPage"];

/** A split with its talk: the answer on the left, what raters gave and say beside it. */
export function SplitPage() {
  const splitId = useParams()["splitId"] ?? "";
  const split = useQuery(oneSplit(splitId));
  const title = split.data && `${split.data.prompt.title}, ${split.data.criterion.name.toLowerCase()}`;
  useTitle(title && `Split: ${title}`);
  return (
    <main className="mx-auto w-full max-w-[100rem] px-4 py-4 sm:px-6">
      <Query of={split} what="the split">
        {(page) => (
          <>
            <Head split={page} title={title ?? ""} />
            <div className="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(22rem,28rem)]">
              <section aria-label="What was graded" className="min-w-0">
                <ReadAnswer prompt={page.prompt} text={page.answer} raters={page.raters} code={codeOfSplit(page.id)} />
              </section>
              <div className="grid min-w-0 content-start gap-6">
                <section>
                  <h2>What raters gave</h2>
                  <GivenLevels
                    question={page.criterion.question}
                    levels={page.criterion.levels}
                    raters={page.raters.map((r) => ({ ...r, now: standsAt(r) }))}
                    nowWords="Stand here now:"
                  />
                  <Looks split={page} />
                </section>
                <SaidByRaters
                  raters={page.raters}
                  highest={page.criterion.levels.length - 1}
                  keyPoints={page.prompt.keyPoints}
                />
                {page.stands && page.talking && page.state === "OPEN" && <StanceForm split={page} />}
                <Talk split={page}>
                  <ProposeAnchor
                    studyId={page.studyId}
                    criterion={page.criterion}
                    kindId={page.prompt.kindId}
                    kind={page.prompt.kind}
                  />
                </Talk>
                {page.leads && page.talking && <ClosingSteps split={page} />}
              </div>
            </div>
          </>
        )}
      </Query>
    </main>
  );
}

function Head({ split, title }: { split: Split; title: string }) {
  return (
    <header>
      <p className="text-sm text-ink-soft">
        <Link to={split.leads ? `/studies/${split.studyId}/agreement` : "/"}>{split.studyTitle}</Link>, a split
      </p>
      <h1 className="[overflow-wrap:anywhere]">{title}</h1>
      <State split={split} />
      <a href="#talk" className="text-tarn underline underline-offset-4 lg:hidden">
        To the talk
      </a>
    </header>
  );
}

function State({ split }: { split: Split }) {
  const apart = `Raters lie ${count(split.distance, "level", "levels")} apart`;
  const { closing } = split;
  if (!closing) {
    return (
      <p className="mt-1 text-ink-soft">
        {apart}. {split.talking ? "It is open." : "It was not settled before the round was closed."}
      </p>
    );
  }
  return (
    <Note tone={closing.level === undefined ? "caution" : "good"} role="status" className="mt-2 max-w-3xl">
      <p>
        {closing.level === undefined ? "Left open" : `Settled at ${closing.level}`} by {closing.by},{" "}
        {moment(closing.at)}
        {closing.how === "THIRD_LOOK" && ", who looked blind: the median of all stands"}.
        {closing.how === "LEAD" && (closing.namesKnown ? " They knew the names." : " They did not know the names.")}
      </p>
      {closing.reason && <p className="[overflow-wrap:anywhere] whitespace-pre-line">{closing.reason}</p>}
      <p className="text-sm text-ink-soft">{apart}: the grades they gave stay, and agreement rests on them.</p>
    </Note>
  );
}
