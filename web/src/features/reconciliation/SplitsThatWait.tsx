import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { count } from "../../ui/format";
import { Failure } from "../../ui/Query";
import { earlierSplits, mySplits } from "./api";

type Own = Schemas["OwnSplit"];

const WAITS: Record<Own["waitsFor"], string> = {
  STANCE: "where do you stand?",
  READING: "something new was said",
  LOOK: "a look at one answer",
  CLOSING: "to be closed",
  NOTHING: "",
};

const STATES: Record<Own["state"], string> = { OPEN: "in talk", SETTLED: "settled", LEFT_OPEN: "left open" };

/** Splits that concern whoever signed in: first what waits for them, the others folded. */
export function SplitsThatWait() {
  const { data } = useQuery(mySplits());
  if (!data || (data.splits.length === 0 && data.later === 0 && !data.more)) {
    return null;
  }
  const later = data.later > 0 && (
    <p className="mt-1 text-ink-soft">
      {count(data.later, "split opens", "splits open")} to you once you, and everybody with the same prompt, have sent
      in.
    </p>
  );
  if (data.splits.length === 0 && !data.more) {
    return later;
  }
  const waiting = data.splits.filter((s) => s.waitsFor !== "NOTHING");
  const others = data.splits.filter((s) => s.waitsFor === "NOTHING");
  return (
    <section className="mt-8 mb-8">
      <h2>Splits to talk about</h2>
      {later}
      {waiting.length > 0 && <Splits splits={waiting} />}
      {waiting.length === 0 && <p className="mt-1 text-ink-soft">Nothing waits for you.</p>}
      {(others.length > 0 || data.more) && (
        <details className="mt-2">
          <summary className="cursor-pointer text-sm text-ink-soft">
            {others.length > 0 && count(others.length, "other that concerns you", "others that concern you")}
            {others.length > 0 && data.more && ", and those of earlier studies"}
            {others.length === 0 && "Those of earlier studies"}
          </summary>
          {others.length > 0 && <Splits splits={others} />}
          {data.more && <EarlierSplits />}
        </details>
      )}
    </section>
  );
}

/** Of studies in which somebody took part many are without a split that concerns them: those pages are passed over. */
function EarlierSplits() {
  const earlier = useInfiniteQuery(earlierSplits());
  const splits = earlier.data?.pages.flatMap((p) => p.splits) ?? [];
  const isMore = !earlier.data || earlier.hasNextPage;
  const show = async () => {
    let page = await earlier.fetchNextPage();
    while (!page.error && page.hasNextPage && page.data?.pages.at(-1)?.splits.length === 0) {
      page = await earlier.fetchNextPage();
    }
  };
  return (
    <>
      {splits.length > 0 && <Splits splits={splits} />}
      {splits.length === 0 && !isMore && <p className="mt-2 text-sm text-ink-soft">None that concerns you.</p>}
      {earlier.error && <Failure error={earlier.error} what="earlier splits" onRetry={() => void show()} />}
      {isMore && (
        <Button className="mt-3" disabled={earlier.isFetching} onClick={() => void show()}>
          Show those of earlier studies
        </Button>
      )}
    </>
  );
}

function Splits({ splits }: { splits: Own[] }) {
  return (
    <ul className="mt-2">
      {splits.map((s) => (
        <li
          key={s.id}
          className="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1.5 [overflow-wrap:anywhere] last:border-b"
        >
          <Link
            to={`/splits/${s.id}${s.waitsFor === "LOOK" ? "/look" : ""}`}
            className="text-tarn underline underline-offset-4"
          >
            {s.title === "" ? "One answer" : s.title}, {s.criterion.toLowerCase()}
          </Link>
          <span className="text-sm text-ink-soft">{s.studyTitle}</span>
          <span className="ml-auto text-sm">
            {s.waitsFor === "NOTHING" ? STATES[s.state] : WAITS[s.waitsFor]}
            {s.words > 0 && <span className="text-ink-soft"> · {count(s.words, "note", "notes")}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
