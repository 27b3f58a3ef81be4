import { useQuery, useQueryClient } from "@tanstack/react-query";
import { currentOf, type Schemas } from "../../api/client";
import type { ReactNode } from "react";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { DraftHead } from "../../ui/DraftHead";
import { Area, Choice, Field, NumberField, Tick } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { useDraft } from "../../ui/useDraft";
import { rubricOfStudy, WeightsEditor } from "../rubric";
import { COEFFICIENTS, TIE_BREAKS, useStepsChanged, useStudy } from "../study";
import { briefOfStudy, putBrief, useCloseBrief } from "./api";
import { type Plan, sizeOf } from "./plan";

type BriefView = Schemas["BriefView"];
type Terms = Schemas["RuleTerms"];
type Written = { title: string; brief: Schemas["Brief"] };

const draftOf = (view: BriefView): { value: Written; version: number } => ({
  value: { title: view.title, brief: view.brief },
  version: view.version,
});

function choices<V extends string>(words: Record<V, string>, order: readonly V[]): { value: V; label: string }[] {
  return order.map((value) => ({ value, label: words[value] }));
}

const FLOORS: Record<Terms["floorOn"], string> = {
  ESTIMATE: "the estimate",
  LOWER_LIMIT: "the lower limit of its interval",
  UPPER_LIMIT: "the upper limit: withheld only when too low beyond doubt",
};

const LOOKS = [
  { value: "1", label: "once, when grading has ended" },
  { value: "2", label: "once before, and at the end" },
  { value: "3", label: "twice before, and at the end" },
  { value: "4", label: "three times before, and at the end" },
];

/** The brief while it is written: saved as it is typed, closed when it says all it must. */
export function BriefEditor({ brief: view, plan }: { brief: BriefView; plan: Plan }) {
  const study = useStudy();
  const stepsChanged = useStepsChanged(study.id);
  const client = useQueryClient();
  const draft = useDraft<Written>({
    name: `brief.${study.id}`,
    ...draftOf(view),
    save: async (value, version) => {
      const saved = await putBrief(study.id, { version, ...value });
      client.setQueryData(briefOfStudy(study.id).queryKey, saved);
      stepsChanged();
      return draftOf(saved);
    },
    current: (problem) => draftOf(currentOf<BriefView>(problem)),
  });
  const { title, brief } = draft.value;
  const write = (change: Partial<Schemas["Brief"]>, group?: string) =>
    draft.change({ title, brief: { ...brief, ...change } }, group);
  return (
    <>
      <DraftHead draft={draft} title="Brief" what="The brief" />
      <QuestionFields brief={brief} onChange={write}>
        <Field
          label="Title of the study"
          maxLength={LIMITS.WriteBrief.title}
          value={title}
          error={title.trim() === "" ? "must be there" : draft.errorOf("title")}
          onChange={(e) => draft.change({ title: e.target.value, brief }, "title")}
        />
      </QuestionFields>
      <h2 className="mt-8">The decision rule</h2>
      <p className="mt-1 mb-4 max-w-2xl text-ink-soft">
        It is fixed before anybody sees a grade, so that nobody can say it was made to fit.
      </p>
      <RuleFields terms={brief.rule} onChange={(rule, group) => write({ rule }, group)} errorOf={draft.errorOf} />
      <Tick
        className="mt-5"
        checked={brief.asksExpectations}
        label="Ask everybody what they expect before they see anything"
        hint="A favourite that was named beforehand can be told apart from a finding."
        onTick={(asksExpectations) => write({ asksExpectations })}
      />
      <h2 className="mt-8">What is asked of raters</h2>
      <p className="mt-1 mb-3 max-w-2xl text-ink-soft">Beside a level on each criterion.</p>
      <AskedOfRaters raters={brief.raters} onChange={(raters) => write({ raters })} />
      <CloseBrief brief={brief} plan={plan} settle={draft.flush} unsaved={draft.status !== "saved"} />
    </>
  );
}

type RuleFieldsProps = {
  terms: Terms;
  onChange: (terms: Terms, group?: string) => void;
  errorOf: (field: string) => string | undefined;
};

function RuleFields({ terms, onChange, errorOf }: RuleFieldsProps) {
  const study = useStudy();
  const rubric = useQuery(rubricOfStudy(study.id));
  const number = (field: "agreementFloor" | "margin" | "minimumRaters") => (value: number | undefined) =>
    value !== undefined && onChange({ ...terms, [field]: value }, field);
  return (
    <>
      <div className="grid max-w-4xl gap-x-6 gap-y-4 sm:grid-cols-2 lg:grid-cols-3">
        <Choice
          label="Coefficient of agreement"
          value={terms.coefficient}
          options={choices<Terms["coefficient"]>(COEFFICIENTS, ["ALPHA_ORDINAL", "AC2_ORDINAL"])}
          onValue={(coefficient) => onChange({ ...terms, coefficient })}
        />
        <NumberField
          label="Agreement floor"
          hint="Below it, nothing is recommended."
          value={terms.agreementFloor}
          error={errorOf("agreementFloor")}
          onNumber={number("agreementFloor")}
        />
        <Choice
          label="What must reach the floor"
          value={terms.floorOn}
          options={choices<Terms["floorOn"]>(FLOORS, ["UPPER_LIMIT", "ESTIMATE", "LOWER_LIMIT"])}
          onValue={(floorOn) => onChange({ ...terms, floorOn })}
        />
        <NumberField
          label="Margin, in points of 100"
          hint="The smallest difference that matters."
          value={terms.margin}
          error={errorOf("margin")}
          onNumber={number("margin")}
        />
        <NumberField
          label="Raters an answer, at least"
          value={terms.minimumRaters}
          error={errorOf("minimumRaters")}
          onNumber={number("minimumRaters")}
        />
        <Choice
          label="Between safe choices decides"
          value={terms.tieBreak}
          options={choices<Terms["tieBreak"]>(TIE_BREAKS, ["COST", "TIME", "NONE"])}
          onValue={(tieBreak) => onChange({ ...terms, tieBreak })}
        />
        <Choice
          label="Standings are seen"
          hint="Looking early costs: each look spends its part of what may be said falsely."
          value={String(terms.looks)}
          options={LOOKS}
          onValue={(looks) => onChange({ ...terms, looks: Number(looks) })}
        />
      </div>
      <StrictTicks terms={terms} onChange={onChange} />
      {rubric.data && <WeightsOfRule rubric={rubric.data} terms={terms} onChange={onChange} />}
    </>
  );
}

type CloseBriefProps = { brief: Schemas["Brief"]; plan: Plan; settle: () => Promise<void>; unsaved: boolean };

function CloseBrief({ brief, plan, settle, unsaved }: CloseBriefProps) {
  const study = useStudy();
  const close = useCloseBrief(study.id);
  const missing = [
    brief.question.trim() === "" && "the question",
    brief.audience.trim() === "" && "for whom it is",
  ].filter((m) => m !== false);
  return (
    <section className="mt-6 max-w-3xl border-y border-rule py-4">
      <p className="mb-3">
        {missing.length > 0
          ? `Before it can be closed, ${missing.join(" and ")} must be written.`
          : "Closing freezes the question and the rule, weights and floors included. Reopening needs a reason that everybody will see."}
      </p>
      <Button
        tone="primary"
        disabled={missing.length > 0 || close.isPending}
        onClick={() => void settle().then(() => close.mutate({ ...sizeOf(plan, brief.rule), effort: "FULL" }))}
      >
        {unsaved ? "Save and close the brief" : "Close the brief"}
      </Button>
      {close.isError && (
        <Note tone="trouble" role="alert" className="mt-3">
          {close.error.message}
        </Note>
      )}
    </section>
  );
}

const TRIALS: { value: Schemas["RaterTerms"]["trials"]; label: string }[] = [
  { value: "FROM_THE_START", label: "from the start" },
  { value: "AFTER_OWN_GRADE", label: "after their own grade for correctness" },
  { value: "NEVER", label: "never" },
];

type AskedOfRatersProps = { raters: Schemas["RaterTerms"]; onChange: (raters: Schemas["RaterTerms"]) => void };

function AskedOfRaters({ raters, onChange }: AskedOfRatersProps) {
  return (
    <>
      <Tick
        checked={raters.reasons === "ALWAYS"}
        label="A reason in words for every answer"
        hint="Otherwise only where a grade is at an end of its scale, or does not apply."
        onTick={(always) => onChange({ ...raters, reasons: always ? "ALWAYS" : "AT_THE_ENDS" })}
      />
      <Tick
        className="mt-3"
        checked={raters.showsReference}
        label="Show the reference answer once a rater’s own sheet is in"
        hint="Raters learn from it, and later sheets may be graded by it. A sheet that is taken back afterwards is counted as such."
        onTick={(showsReference) => onChange({ ...raters, showsReference })}
      />
      <Tick
        className="mt-3"
        checked={raters.asksSourceGuess}
        label="Ask who wrote it once a sheet is in"
        hint="The test of the masking. Raters see the candidates’ names then, without any tie to an answer."
        onTick={(asksSourceGuess) => onChange({ ...raters, asksSourceGuess })}
      />
      <Choice
        className="mt-3 max-w-md"
        label="Raters see what came of trying an answer’s code"
        hint="Of prompts that have a check. What raters see before they grade, they grade by; whether they saw it is told with the agreement and in the memo."
        value={raters.trials}
        options={TRIALS}
        onValue={(trials) => onChange({ ...raters, trials })}
      />
    </>
  );
}

type QuestionFieldsProps = {
  brief: Schemas["Brief"];
  onChange: (change: Partial<Schemas["Brief"]>, group: string) => void;
  children: ReactNode;
};

function QuestionFields({ brief, onChange, children }: QuestionFieldsProps) {
  return (
    <div className="grid max-w-3xl gap-4">
      {children}
      <Area
        label="Question"
        hint="What is being decided, in one sentence that ends in a question mark."
        maxLength={LIMITS.Brief.question}
        value={brief.question}
        onChange={(e) => onChange({ question: e.target.value }, "question")}
      />
      <Area
        label="For whom"
        hint="Who will work with what is chosen, and on what."
        maxLength={LIMITS.Brief.audience}
        value={brief.audience}
        onChange={(e) => onChange({ audience: e.target.value }, "audience")}
      />
      <Area
        label="Background"
        hint="What somebody needs to know who reads this in a year. Markdown."
        maxLength={LIMITS.Brief.background}
        value={brief.background}
        onChange={(e) => onChange({ background: e.target.value }, "background")}
      />
    </div>
  );
}

type StrictTicksProps = { terms: Terms; onChange: (terms: Terms) => void };

function StrictTicks({ terms, onChange }: StrictTicksProps) {
  return (
    <div className="mt-4 grid gap-2">
      <Tick
        checked={terms.strictOnMasking}
        label="Withhold while an answer names a candidate in what raters read"
        onTick={(strictOnMasking) => onChange({ ...terms, strictOnMasking })}
      />
      <Tick
        checked={terms.strictOnSplits}
        label="Withhold while a split has no settled grade"
        hint="Raters talk through what they lie two levels or more apart on before the round is closed; one that is left open counts as unsettled."
        onTick={(strictOnSplits) => onChange({ ...terms, strictOnSplits })}
      />
      <Tick
        checked={terms.byKind}
        label="Tell kinds of prompts apart where nothing holds over all of them"
        hint="A fifth of the allowance of error goes to the kinds; over all kinds a little less is found."
        onTick={(byKind) => onChange({ ...terms, byKind })}
      />
      <Tick
        checked={terms.failedAnswers === "LOWEST"}
        label="An answer that was refused, failed or timed out without text gets the lowest levels"
        hint="Otherwise it counts nowhere, which rewards failing on hard prompts. Where the outcome differs, both are told."
        onTick={(lowest) => onChange({ ...terms, failedAnswers: lowest ? "LOWEST" : "LEFT_OUT" })}
      />
    </div>
  );
}

type WeightsOfRuleProps = {
  rubric: Schemas["RubricView"];
  terms: Terms;
  onChange: (terms: Terms, group: string) => void;
};

function WeightsOfRule({ rubric, terms, onChange }: WeightsOfRuleProps) {
  return (
    <WeightsEditor
      rubric={rubric}
      terms={terms}
      onGate={(gate) => {
        const { gate: _, ...rest } = terms;
        onChange(gate ? { ...rest, gate } : rest, "gate");
      }}
    />
  );
}
