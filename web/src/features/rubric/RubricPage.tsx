import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { DraftSign, DraftTrouble } from "../../ui/DraftSign";
import { Field } from "../../ui/Field";
import { moment, percent } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { classes } from "../../ui/classes";
import { useTitle } from "../../ui/useTitle";
import { useStudy } from "../study";
import { proposalsOf, rubricOfStudy, usePublish, useRubricDraft } from "./api";
import { CriterionEditor, newCriterion } from "./CriterionEditor";
import { LevelMark } from "./LevelMark";
import { Proposals } from "./Proposals";
import { RubricPreview } from "./RubricPreview";
import { VersionChanges } from "./VersionChanges";

type RubricView = Schemas["RubricView"];

export function RubricPage() {
  const study = useStudy();
  const rubric = useQuery(rubricOfStudy(study.id));
  useTitle(`Rubric · ${study.title}`);
  const leads = study.role === "LEAD" && !study.blind;
  const proposals = useQuery({ ...proposalsOf(study.id), enabled: leads });
  const taken = proposals.data?.filter((p) => p.state === "TAKEN").length ?? 0;
  const mayWrite = study.role === "LEAD" && study.stage === "PREPARING";
  return (
    <Query of={rubric} what="the rubric">
      {(view) => (
        <div className="max-w-6xl">
          {mayWrite ? (
            // Publishing ends a draft, and what is taken from proposals is written by the server: then it is another one.
            <WrittenRubric key={`${view.versions.filter((v) => v.publishedAt).length} ${taken}`} rubric={view} />
          ) : (
            <ReadRubric rubric={view} />
          )}
          {leads && <Proposals studyId={study.id} />}
          {leads && !mayWrite && <NextVersion versions={view.versions} />}
        </div>
      )}
    </Query>
  );
}

/** What was taken while raters grade, or after: it is for the next study, and changes nothing of this one. */
function NextVersion({ versions }: { versions: Schemas["VersionView"][] }) {
  const next = versions.at(-1);
  return next === undefined || next.publishedAt !== undefined || next.inUse ? null : (
    <p className="mt-4 flex flex-wrap items-baseline gap-3">
      <span>
        Version {next.number} is a draft with what you took. What this study was graded by stays version{" "}
        {versions.find((v) => v.inUse)?.number}.
      </span>
      <Publish draft criteria={[]} settle={() => Promise.resolve()} />
    </p>
  );
}

/** Which kind's anchors are shown; in the address, so that it can be linked to. */
function useKind(kinds: Schemas["KindView"][]) {
  const [search, setSearch] = useSearchParams();
  return {
    kind: kinds.find((k) => k.key === search.get("kind")) ?? kinds[0],
    setKind: (key: string) => setSearch({ kind: key }, { replace: true }),
  };
}

function KindSwitch({
  kinds,
  kind,
  onKind,
}: {
  kinds: Schemas["KindView"][];
  kind: string | undefined;
  onKind: (key: string) => void;
}) {
  return (
    <div role="group" aria-label="Kind of prompt" className="mb-5 flex flex-wrap gap-1 border-b border-rule">
      {kinds.map((k) => (
        <button
          key={k.id}
          type="button"
          aria-pressed={k.id === kind}
          onClick={() => onKind(k.key)}
          className={classes(
            "border-b-2 px-3 py-1",
            k.id === kind ? "border-heather font-semibold" : "border-transparent text-ink-soft",
          )}
        >
          {k.name}
        </button>
      ))}
    </div>
  );
}

function versionWords(version: Schemas["VersionView"]): string {
  const at = version.publishedAt ? `published ${moment(version.publishedAt)}` : "a draft";
  return `Version ${version.number}, ${at}${version.inUse ? ", graded by" : ""}`;
}

function ReadRubric({ rubric }: { rubric: RubricView }) {
  const { kind, setKind } = useKind(rubric.kinds);
  const total = rubric.criteria.reduce((sum, c) => sum + c.weight, 0);
  return (
    <>
      <h1>Rubric</h1>
      <p className="mt-1 mb-4 text-ink-soft">
        Criteria with their levels. Each level has an anchor for each kind of prompt. {versionWords(rubric.version)}.
      </p>
      <KindSwitch kinds={rubric.kinds} kind={kind?.id} onKind={setKind} />
      {rubric.criteria
        .filter((c) => c.kindIds.length === 0 || c.kindIds.some((id) => id === kind?.id))
        .map((criterion) => (
          <section key={criterion.id} className="mb-7">
            <h2>{criterion.name}</h2>
            <p className="mb-2">
              {criterion.question}{" "}
              <span className="text-ink-soft">
                Weighs {percent(total === 0 ? 0 : criterion.weight / total)} of the score.
              </span>
            </p>
            <ol
              className="grid gap-px"
              style={{ gridTemplateColumns: `repeat(${criterion.levels.length}, minmax(0, 1fr))` }}
            >
              {criterion.levels.map((level) => (
                <li key={level.level} className="border-t-2 border-edge pt-2 pr-3">
                  <LevelMark level={level.level} highest={criterion.levels.length - 1} />{" "}
                  <span className="font-medium">{level.name}</span>
                  <p className="mt-1 text-sm">
                    {level.anchors.find((a) => a.kindId === kind?.id)?.text ?? "No anchor."}
                  </p>
                </li>
              ))}
            </ol>
            {criterion.traits.length > 0 && (
              <p className="mt-2 text-sm text-ink-soft">Traits to note: {criterion.traits.join(", ")}.</p>
            )}
          </section>
        ))}
      <VersionChanges rubric={rubric} />
    </>
  );
}

function WrittenRubric({ rubric }: { rubric: RubricView }) {
  const study = useStudy();
  const draft = useRubricDraft(study.id, rubric);
  const { kind, setKind } = useKind(rubric.kinds);
  const [preview, setPreview] = useState(false);
  const criteria = draft.value;
  return (
    <>
      <div className="mb-1 flex flex-wrap items-baseline gap-4">
        <h1>Rubric</h1>
        <span className="ml-auto" />
        <DraftSign draft={draft} />
        <Button onClick={() => setPreview(true)}>Try it on an answer</Button>
        <Publish draft={rubric.version.publishedAt === undefined} criteria={criteria} settle={draft.flush} />
      </div>
      <p className="mb-4 text-ink-soft">
        {versionWords(rubric.version)}. Writing here changes the draft; raters grade by the version that is published
        when the round opens.
      </p>
      <DraftTrouble draft={draft} what="The rubric" />
      <KindSwitch kinds={rubric.kinds} kind={kind?.id} onKind={setKind} />
      {criteria.map((criterion, i) => (
        <CriterionEditor
          key={criterion.key ?? `new ${i}`}
          criterion={criterion}
          kind={kind}
          kinds={rubric.kinds}
          onChange={(next, group) => draft.change(criteria.with(i, next), group && `${i} ${group}`)}
          onTakeOut={() => draft.change(criteria.toSpliced(i, 1))}
          onMove={
            i === 0
              ? undefined
              : () => draft.change([...criteria.slice(0, i - 1), criterion, ...criteria.slice(i - 1).toSpliced(1, 1)])
          }
        />
      ))}
      <AddButton
        onAdd={() => draft.change([...criteria, newCriterion()])}
        disabled={criteria.length >= LIMITS.WriteRubric.criteria.most}
      >
        Add a criterion
      </AddButton>
      <VersionChanges rubric={rubric} />
      <Dialog title="The rubric on an answer" open={preview} onOpenChange={setPreview}>
        <RubricPreview criteria={criteria} />
      </Dialog>
    </>
  );
}

type PublishProps = { draft: boolean; criteria: { name: string; levels: Level[] }[]; settle: () => Promise<void> };

type Level = { anchors: { text: string }[] };

function Publish({ draft, criteria, settle }: PublishProps) {
  const study = useStudy();
  const publish = usePublish(study.id);
  const [asking, setAsking] = useState(false);
  const [note, setNote] = useState("");
  return (
    <>
      <Button tone="primary" disabled={!draft} onClick={() => setAsking(true)}>
        Publish …
      </Button>
      <Dialog title="Publish the rubric" open={asking} onOpenChange={setAsking}>
        <p>A published version stays as it is. Writing on makes the next one.</p>
        <Unanchored names={criteria.filter(isUnanchored).map((c) => c.name)} />
        <Field
          label="What changed"
          className="mt-3"
          maxLength={LIMITS.PublishRubric.note}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        {publish.isError && (
          <Note tone="trouble" role="alert" className="mt-3">
            {publish.error.message}
          </Note>
        )}
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={() => setAsking(false)}>Not yet</Button>
          <Button
            tone="primary"
            disabled={publish.isPending}
            onClick={() => void settle().then(() => publish.mutate(note, { onSuccess: () => setAsking(false) }))}
          >
            Publish it
          </Button>
        </div>
      </Dialog>
    </>
  );
}

const isUnanchored = (criterion: { levels: Level[] }) =>
  criterion.levels.every((l) => l.anchors.every((a) => a.text.trim() === ""));

/** Raters hold a level against its anchors: without any, each has a ruler of their own. */
function Unanchored({ names }: { names: string[] }) {
  return names.length === 0 ? null : (
    <Note tone="caution" className="mt-3">
      No level of {names.join(", ")} has an anchor: raters would have nothing to hold a level against.
    </Note>
  );
}
