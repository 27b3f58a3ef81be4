import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Slider } from "radix-ui";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { candidatesOfStudy } from "../candidate";
import { promptsOfStudy } from "../prompt";
import { peopleOfStudy, useStudy } from "../study";
import { forecastOf, usesOf, withholdingOf } from "./api";
import { FloorTable, Outlook, UsesTable } from "./Outlook";

type Size = {
  promptsAKind: number;
  kinds: number;
  candidates: number;
  attempts: number;
  raters: number;
  ratersAnAnswer: number;
  minutes: number;
};

type GradedBy = Schemas["PlannedSize"]["gradedBy"];

const RATERS: { value: GradedBy; label: string }[] = [
  { value: "MIDDLING", label: "as raters usually do: α about 0.58" },
  { value: "GOOD", label: "as raters do who know the rubric well: α about 0.73" },
  { value: "GUESSING", label: "by guessing" },
];

const START: Size = {
  promptsAKind: 4,
  kinds: 4,
  candidates: 3,
  attempts: 1,
  raters: 4,
  ratersAnAnswer: 3,
  minutes: 6,
};

const MOST = { kinds: 6, promptsAKind: 12, candidates: 8, attempts: 4, raters: 12, ratersAnAnswer: 12, minutes: 30 };

/** The size of the study as it stands, where it has anything to go by; the rest is a usual study. */
function sizeOf(prompts: Schemas["PromptView"][], candidates: number, raters: number): Size {
  const sound = prompts.filter((p) => p.fault === undefined);
  const kinds = new Set(sound.map((p) => p.kind.id)).size;
  const known = {
    ...START,
    ...(kinds > 0 && {
      kinds: Math.min(kinds, MOST.kinds),
      promptsAKind: Math.min(Math.round(sound.length / kinds), MOST.promptsAKind),
    }),
    ...(candidates >= 2 && { candidates: Math.min(candidates, MOST.candidates) }),
    ...(raters >= 2 && { raters: Math.min(raters, MOST.raters) }),
  };
  return { ...known, ratersAnAnswer: Math.min(known.ratersAnAnswer, known.raters) };
}

/** How much is enough: what a study of some size could show, and what grading it would cost. */
export function Planner({ rule }: { rule: Schemas["RuleTerms"] }) {
  const study = useStudy();
  const [prompts, candidates, people] = useQueries({
    queries: [promptsOfStudy(study.id), candidatesOfStudy(study.id), peopleOfStudy(study.id)],
  });
  const pending = prompts.isPending || candidates.isPending || people.isPending;
  return (
    <section className="mt-10 border-t border-rule pt-5">
      <h2>How much is enough?</h2>
      <p className="mt-1 mb-4 max-w-3xl text-ink-soft">
        Studies of this size are made up, graded, and decided by the rule above, one candidate truly ahead of the
        others. It is a forecast, not a promise. The dials begin where this study stands.
      </p>
      {!pending && (
        <Dials
          rule={rule}
          start={sizeOf(
            prompts.data ?? [],
            candidates.data?.length ?? 0,
            people.data?.filter((p) => p.grades).length ?? 0,
          )}
        />
      )}
    </section>
  );
}

/** First figures at once, then those that are surer; what else could be done with the hours comes last. */
function useForecast(asked: Omit<Schemas["PlannedSize"], "effort">) {
  const study = useStudy();
  const first = useQuery({
    ...forecastOf(study.id, { ...asked, effort: "FIRST" }),
    placeholderData: keepPreviousData,
  });
  const ready = first.isSuccess && !first.isPlaceholderData;
  const full = useQuery({ ...forecastOf(study.id, { ...asked, effort: "FULL" }), enabled: ready });
  const after = { placeholderData: keepPreviousData, enabled: full.isSuccess };
  const withholding = useQuery({ ...withholdingOf(study.id, { ...asked, effort: "FULL" }), ...after });
  const uses = useQuery({ ...usesOf(study.id, { ...asked, effort: "FULL" }), ...after });
  return { error: first.error, forecast: full.data ?? first.data, stale: first.isPlaceholderData, withholding, uses };
}

type DialsProps = { rule: Schemas["RuleTerms"]; start: Size };

function Dials({ rule, start }: DialsProps) {
  const [size, setSize] = useState(start);
  const [gradedBy, setGradedBy] = useState<GradedBy>("MIDDLING");
  const settled = useDeferredValue(size);
  const { promptsAKind, kinds, ...rest } = settled;
  const asked = { ...rest, promptsByKind: Array<number>(kinds).fill(promptsAKind), gradedBy, rule };
  const { error, forecast, stale, withholding, uses } = useForecast(asked);
  const set = (change: Partial<Size>) =>
    setSize((old) => {
      const next = { ...old, ...change };
      return { ...next, ratersAnAnswer: Math.min(next.ratersAnAnswer, next.raters) };
    });
  const dial = (label: string, field: keyof typeof MOST, from: number, to = MOST[field]) => (
    <Dial label={label} value={size[field]} from={from} to={to} onValue={(value) => set({ [field]: value })} />
  );
  return (
    <>
      <div className="mb-5 grid items-center gap-x-10 gap-y-2 lg:grid-cols-2">
        {dial("Kinds of prompts", "kinds", 1)}
        {dial("Raters", "raters", 2)}
        {dial("Prompts of each kind", "promptsAKind", 1)}
        {dial("Raters an answer", "ratersAnAnswer", 1, size.raters)}
        {dial("Candidates", "candidates", 2)}
        {dial("Minutes an answer", "minutes", 1)}
        {dial("Attempts of each", "attempts", 1)}
      </div>
      <div className="mb-5 max-w-md">
        <Choice label="Raters grade" value={gradedBy} options={RATERS} onValue={setGradedBy} />
      </div>
      {error && <p role="alert">{error.message}</p>}
      {forecast && <Outlook forecast={forecast} rule={rule} stale={stale} />}
      {uses.data && forecast && (
        <UsesTable
          leastRaters={rule.minimumRaters}
          uses={uses.data}
          planned={{ ...settled, hours: forecast.hours }}
          stale={uses.isPlaceholderData}
        />
      )}
      {withholding.data && <FloorTable readings={withholding.data} chosen={rule.floorOn} />}
    </>
  );
}

type DialProps = { label: string; value: number; from: number; to: number; onValue: (value: number) => void };

function Dial({ label, value, from, to, onValue }: DialProps) {
  return (
    <div className="grid grid-cols-[10rem_1fr_2rem] items-center gap-2">
      <span aria-hidden="true">{label}</span>
      <Slider.Root
        className="relative flex h-5 touch-none items-center select-none"
        min={from}
        max={to}
        value={[value]}
        onValueChange={([next]) => next !== undefined && onValue(next)}
      >
        <Slider.Track className="relative h-0.5 grow bg-edge">
          <Slider.Range className="absolute h-full bg-moss" />
        </Slider.Track>
        <Slider.Thumb aria-label={label} className="block size-4 rotate-45 border-2 border-moss bg-vellum" />
      </Slider.Root>
      <span className="text-right font-semibold tabular-nums">{value}</span>
    </div>
  );
}
