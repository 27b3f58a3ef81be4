import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { moment } from "../../ui/format";
import { useStudy } from "../study";
import { contentOf, rubricVersion } from "./api";
import { changesBetween } from "./compare";

/** The versions there are, and what differs between two of them. */
export function VersionChanges({ rubric }: { rubric: Schemas["RubricView"] }) {
  const { versions } = rubric;
  const [from, setFrom] = useState(versions.at(-2)?.number ?? 1);
  const [to, setTo] = useState(versions.at(-1)?.number ?? 1);
  if (versions.length < 2) {
    return null;
  }
  const options = versions.map((v) => ({
    value: String(v.number),
    label: `${v.number}: ${v.publishedAt ? moment(v.publishedAt) : "draft"}${v.note ? `, ${v.note}` : ""}`,
  }));
  return (
    <section className="mt-10 border-t border-rule pt-5">
      <h2>Versions</h2>
      <div className="mt-2 mb-3 flex flex-wrap gap-4">
        <Choice
          label="From"
          className="w-80"
          value={String(from)}
          options={options}
          onValue={(v) => setFrom(Number(v))}
        />
        <Choice label="To" className="w-80" value={String(to)} options={options} onValue={(v) => setTo(Number(v))} />
      </div>
      <Changes from={from} to={to} />
    </section>
  );
}

function Changes({ from, to }: { from: number; to: number }) {
  const study = useStudy();
  const before = useQuery(rubricVersion(study.id, from));
  const after = useQuery(rubricVersion(study.id, to));
  if (!before.data || !after.data) {
    return <p role="status">Fetching the versions …</p>;
  }
  const changes = changesBetween(
    before.data.criteria.map(contentOf),
    after.data.criteria.map(contentOf),
    after.data.kinds,
  );
  if (changes.length === 0) {
    return <p>They say the same.</p>;
  }
  return (
    <dl className="grid gap-3">
      {changes.map((change) => (
        <div key={change.where} className="grid gap-x-4 md:grid-cols-[16rem_1fr]">
          <dt className="font-medium">{change.where}</dt>
          <dd>
            {change.before && <del className="block border-l-4 border-clay pl-2 decoration-1">{change.before}</del>}
            {change.after && <ins className="block border-l-4 border-lichen pl-2 no-underline">{change.after}</ins>}
          </dd>
        </div>
      ))}
    </dl>
  );
}
