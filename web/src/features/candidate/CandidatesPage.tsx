import { useQueries } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Markdown } from "../../ui/Markdown";
import { Note } from "../../ui/Note";
import { Failure } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { useStudy } from "../study";
import { BLANK_CANDIDATE, candidatesOfStudy, unlikeSettings, useAddCandidate } from "./api";
import { CandidateName } from "./CandidateName";
import { priceLine, settingsLine, SIGNS } from "./words";

type Candidate = Schemas["CandidateView"];

export function CandidatesPage() {
  const study = useStudy();
  const [candidates, unlike] = useQueries({ queries: [candidatesOfStudy(study.id), unlikeSettings(study.id)] });
  const add = useAddCandidate(study.id);
  const navigate = useNavigate();
  useTitle(`Candidates · ${study.title}`);
  if (candidates.error) {
    return <Failure error={candidates.error} what="the candidates" onRetry={() => void candidates.refetch()} />;
  }
  if (!candidates.data) {
    return <p role="status">Fetching the candidates …</p>;
  }
  const all = candidates.data;
  const lead = study.role === "LEAD";
  const preparing = lead && study.stage === "PREPARING";
  const addOne = (baseline: boolean) =>
    add.mutate({ ...BLANK_CANDIDATE, baseline }, { onSuccess: (c) => void navigate(c.id) });
  return (
    <div className="max-w-5xl">
      <h1>Candidates</h1>
      <p className="mt-1 mb-5 text-ink-soft">
        {study.stage === "CLOSED"
          ? "The round is closed: raters see these names now."
          : "Only you see these names. Raters do when the round is closed."}
      </p>
      {all.length > 0 ? (
        <Table
          caption="Candidates with their settings"
          rows={all}
          rowKey={(c) => c.id}
          columns={candidateColumns(all, lead ? (preparing ? "Write" : "Look up") : undefined)}
        />
      ) : (
        <Note tone="info">
          A candidate is a model at exact settings: the same model at another effort is another candidate. A baseline is
          a person’s own answers, graded blind among the rest.
        </Note>
      )}
      {preparing && (
        <p className="mt-3 flex gap-2">
          <Button disabled={add.isPending} onClick={() => addOne(false)}>
            Add a candidate
          </Button>
          <Button disabled={add.isPending} onClick={() => addOne(true)}>
            Add a baseline
          </Button>
        </p>
      )}
      {unlike.data && unlike.data.length > 0 && <UnlikeSettings unlike={unlike.data} all={all} />}
    </div>
  );
}

function Beside({ candidate }: { candidate: Candidate }) {
  const { considerations, note } = candidate.content;
  return (
    <>
      {considerations.length > 0 && (
        <ul className="grid gap-1">
          {considerations.map((c) => (
            <li key={c.sign + c.text}>
              <span className={c.sign === "RULES_OUT" ? "border-b-2 border-clay" : "text-ink-soft"}>
                {SIGNS[c.sign]}:
              </span>{" "}
              {c.text}
            </li>
          ))}
        </ul>
      )}
      {note && <Markdown text={note} className="mt-2 first:mt-0" />}
    </>
  );
}

/** Settings in which candidates differ: a difference in answers may be one of settings. */
function UnlikeSettings({ unlike, all }: { unlike: Schemas["Unlike"][]; all: Candidate[] }) {
  const models = all.filter((c) => !c.content.baseline);
  return (
    <section className="mt-8">
      <h2>Not alike</h2>
      <p className="mt-1 mb-2 max-w-3xl text-ink-soft">
        Candidates differ in these settings. What the study finds is then about model and setting together.
      </p>
      <Table
        caption="Settings in which candidates differ"
        rows={unlike}
        rowKey={(u) => u.setting}
        columns={[
          { key: "setting", head: "Setting", rowHeader: true, cell: (u) => u.setting },
          ...models.map((c) => ({
            key: c.id,
            head: <CandidateName name={c.content.name} index={all.indexOf(c)} />,
            cell: (u: Schemas["Unlike"]) =>
              u.values.find((v) => v.candidateId === c.id)?.value ?? <span className="text-ink-soft">not given</span>,
          })),
        ]}
      />
    </section>
  );
}

function candidateColumns(all: Candidate[], link: string | undefined): Column<Candidate>[] {
  return [
    {
      key: "name",
      head: "Candidate",
      rowHeader: true,
      sortBy: (c) => c.content.name,
      cell: (c) => (
        <>
          <CandidateName name={c.content.name || "Not named yet"} index={all.indexOf(c)} />
          {c.content.baseline && <span className="block text-sm text-ink-soft">baseline: a person’s answers</span>}
          {link && (
            <Link to={c.id} className="block text-sm text-tarn underline underline-offset-4">
              {link}
            </Link>
          )}
        </>
      ),
    },
    { key: "version", head: "Version", cell: (c) => c.content.version || "not given" },
    { key: "settings", head: "Settings", cell: (c) => settingsLine(c.content) || "not given" },
    { key: "price", head: "Price", cell: (c) => priceLine(c.content) || "not given" },
    { key: "beside", head: "Beside the grades", cell: (c) => <Beside candidate={c} /> },
  ];
}
