import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { count } from "../../ui/format";
import { mySplits } from "./api";

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
  if (!data || (data.splits.length === 0 && data.later === 0)) {
    return null;
  }
  const later = data.later > 0 && (
    <p className="mt-1 text-ink-soft">
      {count(data.later, "split opens", "splits open")} to you once you, and everybody with the same prompt, have sent
      in.
    </p>
  );
  if (data.splits.length === 0) {
    return later;
  }
  const waiting = data.splits.filter((s) => s.waitsFor !== "NOTHING");
  const others = data.splits.filter((s) => s.waitsFor === "NOTHING");
  return (
    <section className="mt-8 mb-8">
      <h2>Splits to talk about</h2>
      {later}
      {waiting.length > 0 && <Splits splits={waiting} />}
      {waiting.length === 0 && others.length > 0 && <p className="mt-1 text-ink-soft">Nothing waits for you.</p>}
      {others.length > 0 && (
        <details className="mt-2">
          <summary className="cursor-pointer text-sm text-ink-soft">
            {count(others.length, "other that concerns you", "others that concern you")}
          </summary>
          <Splits splits={others} />
        </details>
      )}
    </section>
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
