import { useInfiniteQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Query } from "../../ui/Query";
import { useSettledText } from "../../ui/useSettledText";
import { useTitle } from "../../ui/useTitle";
import { useTyped } from "../../ui/useTyped";
import { useStudy } from "../study";
import { foundIn } from "./api";

type Find = Schemas["FoundPlace"];

const SORTS: Record<Find["sort"], string> = {
  PROMPT: "in the prompt",
  ANSWER: "in the answer",
  REMARK: "in a remark on the answer",
  REASON: "in a reason given for the answer",
};

/** As many as the server takes in an address. */
const MOST_CHARACTERS = 200;

/** Looks for words in a study; what is looked for stands in the address. */
export function SearchPage() {
  const study = useStudy();
  const [search, setSearch] = useSearchParams();
  const [words, type] = useTyped(search.get("words") ?? "", (text) =>
    setSearch(text === "" ? {} : { words: text }, { replace: true }),
  );
  const settled = useSettledText(words).trim();
  const found = useInfiniteQuery(foundIn(study.id, settled));
  useTitle(`Search · ${study.title}`);
  return (
    <div className="max-w-3xl">
      <h1>Search</h1>
      <Field
        label="Words in prompts, answers and what raters said of them"
        hint="All of them; in quotes one after the other; with “or” between them either; with a minus before it one must not be there."
        type="search"
        autoFocus
        className="mt-3"
        maxLength={MOST_CHARACTERS}
        value={words}
        onChange={(e) => type(e.target.value)}
      />
      {settled !== "" && (
        <Query of={found} what="what was found">
          {({ pages }) => (
            <>
              <Finds finds={pages.flatMap((p) => p.finds)} more={found.hasNextPage} />
              {found.hasNextPage && (
                <Button className="mt-3" disabled={found.isFetchingNextPage} onClick={() => void found.fetchNextPage()}>
                  Show more
                </Button>
              )}
            </>
          )}
        </Query>
      )}
    </div>
  );
}

function Finds({ finds, more }: { finds: Find[]; more: boolean }) {
  return (
    <>
      <p role="status" className="mt-4 text-sm text-ink-soft">
        {finds.length === 0 ? "These words stand nowhere." : `${finds.length}${more ? " and more" : ""} found.`}
      </p>
      <ul>
        {finds.map((find, i) => (
          <li key={i} className="border-t border-rule py-2.5 last:border-b">
            <Link to={placeOf(find)} className="font-serif text-tarn underline underline-offset-4">
              {find.title}
            </Link>
            <span className="ml-2 text-sm text-ink-soft">
              {SORTS[find.sort]}
              {find.candidate !== undefined && ` of ${find.candidate}`}
            </span>
            <p className="mt-0.5 text-sm [overflow-wrap:anywhere]">
              {find.pieces.map((piece, n) =>
                piece.found ? (
                  <mark key={n} className="bg-ochre-wash font-semibold text-ink">
                    {piece.text}
                  </mark>
                ) : (
                  <span key={n}>{piece.text}</span>
                ),
              )}
            </p>
          </li>
        ))}
      </ul>
    </>
  );
}

function placeOf(find: Find): string {
  return find.answerId === undefined
    ? `../prompts/${find.promptId}`
    : `../answers/${find.promptId}?answer=${find.answerId}`;
}
