import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { DraftSign, DraftTrouble } from "../../ui/DraftSign";
import { Choice, NumberField } from "../../ui/Field";
import { fixed, percent } from "../../ui/format";
import { useStudy } from "../study";
import { type CriterionDraft, scoreExamples, useRubricDraft } from "./api";

type Gate = Schemas["GateTerms"];

type WeightsEditorProps = {
  rubric: Schemas["RubricView"];
  terms: Schemas["RuleTerms"];
  onGate: (gate: Gate | undefined) => void;
};

/** Weights, floors and the gate, with a live picture of what they do to answers that shine or fail on one criterion. */
export function WeightsEditor({ rubric, terms, onGate }: WeightsEditorProps) {
  const study = useStudy();
  const draft = useRubricDraft(study.id, rubric);
  const criteria = draft.value;
  return (
    <section className="mt-7">
      <div className="mb-2 flex flex-wrap items-baseline gap-4">
        <h3>Weights and floors</h3>
        <span className="ml-auto" />
        <DraftSign draft={draft} />
      </div>
      <DraftTrouble draft={draft} what="The rubric" />
      <div className="grid gap-x-8 gap-y-4 xl:grid-cols-[27rem_1fr]">
        <table className="h-fit w-full border-collapse text-left">
          <caption className="sr-only">Weights and floors of criteria</caption>
          <thead>
            <tr className="border-b border-edge text-sm text-ink-soft">
              <th scope="col" className="py-1 pr-3 font-medium">
                Criterion
              </th>
              <th scope="col" className="py-1 pr-3 font-medium">
                Weight
              </th>
              <th scope="col" className="py-1 font-medium">
                Floor of its own
              </th>
            </tr>
          </thead>
          <tbody>
            {criteria.map((c, i) => (
              <WeightRow
                key={c.key ?? i}
                criterion={c}
                terms={terms}
                onChange={(next, group) => draft.change(criteria.with(i, next), `${group} ${i}`)}
              />
            ))}
          </tbody>
        </table>
        <Picture criteria={criteria} terms={terms} />
      </div>
      <GateFields criteria={criteria} gate={terms.gate} onGate={onGate} />
    </section>
  );
}

/** One strand a criterion, as thick as its share, from the score of an answer that fails there to one that only shines there. */
function Picture({ criteria, terms }: { criteria: CriterionDraft[]; terms: Schemas["RuleTerms"] }) {
  const study = useStudy();
  const weighed = criteria.filter((c) => c.key !== undefined);
  const examples = useQuery({
    ...scoreExamples(study.id, {
      criteria: weighed.map((c) => ({ key: c.key ?? "", weight: c.weight, highestLevel: c.levels.length - 1 })),
      ...(terms.gate ? { gate: terms.gate } : {}),
    }),
    enabled: weighed.length > 0,
  });
  if (!examples.data) {
    return null;
  }
  if (examples.data.length === 0) {
    return <p className="text-ink-soft">No criterion has weight; there is no score yet.</p>;
  }
  return (
    <table className="w-full border-collapse text-left">
      <caption className="mb-1 text-left text-sm text-ink-soft">
        What they do: scores of answers that are best on all criteria but one, or on one alone
      </caption>
      <thead>
        <tr className="border-b border-edge text-sm text-ink-soft">
          <th scope="col" className="py-1 pr-3 font-medium">
            Criterion
          </th>
          <th scope="col" className="py-1 pr-3 font-medium">
            Share
          </th>
          <th scope="col" className="py-1 pr-3 text-right font-medium">
            Fails only here
          </th>
          <th scope="col" className="py-1 text-right font-medium">
            Shines only here
          </th>
        </tr>
      </thead>
      <tbody>
        {examples.data.map((e) => (
          <ExampleRow key={e.key} name={criteria.find((c) => c.key === e.key)?.name} example={e} />
        ))}
      </tbody>
    </table>
  );
}

type GateFieldsProps = {
  criteria: CriterionDraft[];
  gate: Gate | undefined;
  onGate: (gate: Gate | undefined) => void;
};

const NO_GATE = "";

function GateFields({ criteria, gate, onGate }: GateFieldsProps) {
  const named = criteria.flatMap((c) => (c.key === undefined ? [] : [{ key: c.key, name: c.name, levels: c.levels }]));
  const of = named.find((c) => c.key === gate?.criterion);
  return (
    <div className="mt-4 flex flex-wrap gap-4">
      <Choice
        label="Gate"
        hint="An answer that fails it scores no more than the cap, however fine the rest is."
        className="w-72"
        value={gate?.criterion ?? NO_GATE}
        options={[
          { value: NO_GATE, label: "no gate" },
          ...named.map((c) => ({ value: c.key, label: `on ${c.name.toLowerCase()}` })),
        ]}
        onValue={(criterion) =>
          onGate(criterion === NO_GATE ? undefined : { criterion, level: gate?.level ?? 0, cap: gate?.cap ?? 40 })
        }
      />
      {gate && of && (
        <>
          <Choice
            label="At or below level"
            className="w-44"
            value={String(gate.level)}
            options={of.levels.slice(0, -1).map((l, i) => ({ value: String(i), label: `${i} ${l.name}` }))}
            onValue={(level) => onGate({ ...gate, level: Number(level) })}
          />
          <NumberField
            label="Cap"
            className="w-28"
            value={gate.cap}
            onNumber={(cap) => cap !== undefined && cap >= 0 && cap <= 100 && onGate({ ...gate, cap })}
          />
        </>
      )}
    </div>
  );
}

type WeightRowProps = {
  criterion: CriterionDraft;
  terms: Schemas["RuleTerms"];
  onChange: (next: CriterionDraft, group: string) => void;
};

function WeightRow({ criterion, terms, onChange }: WeightRowProps) {
  return (
    <tr className="border-b border-rule">
      <th scope="row" className="py-1.5 pr-3 font-normal">
        {criterion.name || "not named"}
      </th>
      <td className="py-1.5 pr-3">
        <NumberField
          label={`Weight of ${criterion.name}`}
          labelHidden
          className="w-24"
          value={criterion.weight}
          onNumber={(weight) => weight !== undefined && weight >= 0 && onChange({ ...criterion, weight }, "weight")}
        />
      </td>
      <td className="py-1.5">
        <NumberField
          label={`Floor of ${criterion.name}`}
          labelHidden
          className="w-24"
          placeholder={fixed(terms.agreementFloor, 2)}
          value={criterion.floor}
          onNumber={(floor) => {
            const { floor: _, ...rest } = criterion;
            const next = floor === undefined ? rest : { ...rest, floor };
            onChange(next, "floor");
          }}
        />
      </td>
    </tr>
  );
}

type ExampleRowProps = { name: string | undefined; example: Schemas["Example"] };

function ExampleRow({ name, example }: ExampleRowProps) {
  return (
    <tr className="border-b border-rule">
      <th scope="row" className="py-1.5 pr-3 font-normal">
        {name}
      </th>
      <td className="py-1.5 pr-3">
        <span className="inline-flex items-center gap-2">
          <span aria-hidden="true" className="inline-block w-28 border-b border-edge">
            <span
              className="block bg-moss"
              style={{ width: `${example.share * 100}%`, height: `${2 + example.share * 14}px` }}
            />
          </span>
          {percent(example.share)}
        </span>
      </td>
      <td className="py-1.5 pr-3 text-right tabular-nums">{fixed(example.lowestHere, 0)}</td>
      <td className="py-1.5 text-right tabular-nums">{fixed(example.highestHere, 0)}</td>
    </tr>
  );
}
