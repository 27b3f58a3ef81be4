import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Area, Field, NumberField, Tick } from "../../ui/Field";
import { Lines } from "../../ui/Lines";
import type { CriterionDraft } from "./api";

export function newCriterion(): CriterionDraft {
  const level = (name: string) => ({ name, anchors: [] });
  return {
    name: "",
    question: "",
    weight: 0,
    levels: ["Not at all", "Hardly", "Partly", "Mostly", "Fully"].map(level),
    kindIds: [],
    traits: [],
  };
}

type CriterionEditorProps = {
  criterion: CriterionDraft;
  kind: Schemas["KindView"] | undefined;
  kinds: Schemas["KindView"][];
  onChange: (next: CriterionDraft, group?: string) => void;
  onTakeOut: () => void;
  /** Moves it before the one above; not there for the first. */
  onMove: (() => void) | undefined;
};

/** A criterion with its levels and the anchors for one kind of prompt, written in place. */
type Change = CriterionEditorProps["onChange"];

export function CriterionEditor({ criterion, kind, kinds, onChange, onTakeOut, onMove }: CriterionEditorProps) {
  const title = criterion.name || "New criterion";
  return (
    <section aria-label={title} className="mb-8 border-t border-rule pt-4">
      <WhatItAsks criterion={criterion} onChange={onChange} />
      <LevelFields criterion={criterion} onChange={onChange} kind={kind} title={title} />
      <LevelSteps criterion={criterion} onChange={onChange}>
        {onMove && <Button onClick={onMove}>Move up</Button>}
        <Button tone="danger" aria-label={`Take out ${title}`} onClick={onTakeOut}>
          Take out
        </Button>
      </LevelSteps>
      <KindsAndTraits criterion={criterion} onChange={onChange} kinds={kinds} />
    </section>
  );
}

type WhatItAsksProps = { criterion: CriterionDraft; onChange: Change };

function WhatItAsks({ criterion, onChange }: WhatItAsksProps) {
  return (
    <div className="grid gap-4 md:grid-cols-[14rem_1fr_7rem]">
      <Field
        label="Criterion"
        maxLength={LIMITS.CriterionContent.name}
        value={criterion.name}
        onChange={(e) => onChange({ ...criterion, name: e.target.value }, "name")}
      />
      <Field
        label="Question it asks"
        maxLength={LIMITS.CriterionContent.question}
        value={criterion.question}
        onChange={(e) => onChange({ ...criterion, question: e.target.value }, "question")}
      />
      <NumberField
        label="Weight"
        value={criterion.weight}
        onNumber={(weight) => weight !== undefined && weight >= 0 && onChange({ ...criterion, weight }, "weight")}
      />
    </div>
  );
}

type LevelStepsProps = { criterion: CriterionDraft; onChange: Change; children: ReactNode };

/** Adds and takes away levels, as far as a scale goes. */
function LevelSteps({ criterion, onChange, children }: LevelStepsProps) {
  const { levels } = criterion;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <AddButton
        disabled={levels.length >= LIMITS.CriterionContent.levels.most}
        onAdd={() => onChange({ ...criterion, levels: [...levels, { name: "", anchors: [] }] })}
      >
        Add a level on top
      </AddButton>
      <Button disabled={levels.length <= 2} onClick={() => onChange({ ...criterion, levels: levels.slice(0, -1) })}>
        Take the top level out
      </Button>
      <Button
        onClick={() =>
          onChange({
            ...criterion,
            levels: ["Fail", "Pass"].map((name, i) => ({
              name,
              anchors: levels[i === 0 ? 0 : levels.length - 1]?.anchors ?? [],
            })),
          })
        }
      >
        Make it pass or fail
      </Button>
      <span className="ml-auto" />
      {children}
    </div>
  );
}

type KindsAndTraitsProps = { criterion: CriterionDraft; onChange: Change; kinds: CriterionEditorProps["kinds"] };

function KindsAndTraits({ criterion, onChange, kinds }: KindsAndTraitsProps) {
  return (
    <details className="mt-2">
      <summary className="text-tarn underline underline-offset-4">Kinds and traits</summary>
      <div className="mt-2 grid gap-6 md:grid-cols-2">
        <fieldset>
          <legend className="mb-1 font-medium">For which kinds</legend>
          <p className="mb-1.5 text-sm text-ink-soft">None ticked means all.</p>
          {kinds.map((k) => (
            <Tick
              key={k.id}
              checked={criterion.kindIds.includes(k.id)}
              label={k.name}
              onTick={(ticked) =>
                onChange({
                  ...criterion,
                  kindIds: ticked ? [...criterion.kindIds, k.id] : criterion.kindIds.filter((id) => id !== k.id),
                })
              }
            />
          ))}
        </fieldset>
        <Lines
          legend="Traits to offer"
          hint="Kinds of remark that raters note again and again."
          one="Trait"
          values={criterion.traits}
          onChange={(traits, group) => onChange({ ...criterion, traits }, group)}
        />
      </div>
    </details>
  );
}

type LevelFieldsProps = {
  criterion: CriterionDraft;
  onChange: Change;
  kind: CriterionEditorProps["kind"];
  title: string;
};

function LevelFields({ criterion, onChange, kind, title }: LevelFieldsProps) {
  const { levels } = criterion;
  const setLevel = (i: number, change: Partial<(typeof levels)[number]>, group: string) =>
    onChange({ ...criterion, levels: levels.map((l, at) => (at === i ? { ...l, ...change } : l)) }, group);
  return (
    <ol
      className="mt-3 grid gap-x-3 gap-y-3"
      style={{ gridTemplateColumns: `repeat(${Math.min(levels.length, 5)}, minmax(0, 1fr))` }}
    >
      {levels.map((level, i) => (
        <li key={i} className="border-t-2 border-edge pt-2">
          <Field
            label={`Level ${i}`}
            maxLength={LIMITS.LevelContent.name}
            value={level.name}
            placeholder={String(i)}
            onChange={(e) => setLevel(i, { name: e.target.value }, `level ${i}`)}
          />
          {kind && (
            <Area
              label={`Anchor of ${title}, level ${i}, for ${kind.name.toLowerCase()}`}
              labelHidden
              className="mt-1.5 text-sm"
              maxLength={LIMITS.AnchorContent.text}
              placeholder={`What it looks like in ${kind.name.toLowerCase()}`}
              value={level.anchors.find((a) => a.kindId === kind.id)?.text ?? ""}
              onChange={(e) => {
                const others = level.anchors.filter((a) => a.kindId !== kind.id);
                setLevel(
                  i,
                  { anchors: [...others, { kindId: kind.id, text: e.target.value }] },
                  `anchor ${i} ${kind.id}`,
                );
              }}
            />
          )}
        </li>
      ))}
    </ol>
  );
}
