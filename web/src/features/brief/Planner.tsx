import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Slider } from "radix-ui";
import type { Schemas } from "../../api/client";
import { chance, fixed } from "../../ui/format";
import { type Axis, IntervalAxis, IntervalRow } from "../../ui/IntervalRow";
import { type Column, Table } from "../../ui/Table";
import { candidatesOfStudy } from "../candidate";
import { promptsOfStudy } from "../prompt";
import { peopleOfStudy, useStudy } from "../study";
import { alternativesOf, forecastOf } from "./api";

type Size = {
  promptsAKind: number;
  kinds: number;
  candidates: number;
  attempts: number;
  raters: number;
  ratersAnAnswer: number;
  minutes: number;
};

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
export function Planner({ margin }: { margin: number }) {
  const study = useStudy();
  const [prompts, candidates, people] = useQueries({
    queries: [promptsOfStudy(study.id), candidatesOfStudy(study.id), peopleOfStudy(study.id)],
  });
  const pending = prompts.isPending || candidates.isPending || people.isPending;
  return (
    <section className="mt-10 border-t border-rule pt-5">
      <h2>How much is enough?</h2>
      <p className="mt-1 mb-4 max-w-3xl text-ink-soft">
        Studies of this size are made up and evaluated as yours will be, with scores that vary as they usually do. It is
        a forecast, not a promise. The dials begin where this study stands.
      </p>
      {!pending && (
        <Dials
          margin={margin}
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

function Dials({ margin, start }: { margin: number; start: Size }) {
  const study = useStudy();
  const [size, setSize] = useState(start);
  const settled = useDeferredValue(size);
  const found = Math.min(40, Math.max(0.5, margin));
  const asked = {
    promptsByKind: Array<number>(settled.kinds).fill(settled.promptsAKind),
    candidates: settled.candidates,
    attempts: settled.attempts,
    raters: settled.raters,
    ratersAnAnswer: settled.ratersAnAnswer,
    minutes: settled.minutes,
    margin: found,
  };
  const forecast = useQuery({ ...forecastOf(study.id, asked), placeholderData: keepPreviousData });
  const alternatives = useQuery({
    ...alternativesOf(study.id, asked),
    placeholderData: keepPreviousData,
    // What is planned comes first; while a dial is turned nobody waits for the rest.
    enabled: forecast.isSuccess && !forecast.isPlaceholderData,
  });
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
      {forecast.isError && <p role="alert">{forecast.error.message}</p>}
      {forecast.data && (
        <Outlook
          planned={forecast.data}
          alternatives={alternatives.data ?? []}
          margin={found}
          stale={forecast.isPlaceholderData || alternatives.isPlaceholderData}
        />
      )}
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

type OutlookProps = {
  planned: Schemas["ForecastView"];
  alternatives: Schemas["Alternative"][];
  margin: number;
  stale: boolean;
};

type Row = { what: string; forecast: Schemas["ForecastView"] };

/** A difference of just the margin, with the interval that such a study would put around it. */
function Outlook({ planned, alternatives, margin, stale }: OutlookProps) {
  const rows: Row[] = [{ what: "As planned", forecast: planned }, ...alternatives];
  const widest = Math.max(...rows.map((r) => r.forecast.halfWidth.value ?? 0));
  const edge = Math.max(10, Math.ceil((widest + margin) / 10) * 10);
  const axis: Axis = {
    from: -edge,
    to: edge,
    decimals: 0,
    marks: [
      { at: 0, label: "0" },
      { at: margin, label: `margin ${fixed(margin, 1)}` },
    ],
  };
  return (
    <div aria-busy={stale} className={stale ? "opacity-60" : undefined}>
      <p className="mb-2 font-serif text-lg">{sentence(planned, margin)}</p>
      <Table
        caption="Forecast as planned and with a little more"
        rows={rows}
        rowKey={(r) => r.what}
        columns={outlookColumns(axis, margin)}
      />
      <p className="mt-2 text-sm text-ink-soft">
        “Recommended” counts made-up studies in which a candidate that is truly ahead by the margin is clear of every
        other one. Assumed spread in points: candidates from prompt to prompt 12, raters 6, one grade 12.
      </p>
    </div>
  );
}

function around(center: number, halfWidth: Schemas["Figure"]) {
  return halfWidth.value === undefined
    ? { value: center }
    : { value: center, low: center - halfWidth.value, high: center + halfWidth.value };
}

function sentence(planned: Schemas["ForecastView"], margin: number): string {
  const share = planned.chanceClear.value;
  if (share === undefined) {
    return "A study of this size has no interval: it needs two prompts and two raters at least.";
  }
  const found = `a candidate truly ahead by ${fixed(margin, 1)} points would be recommended in ${chance(share)} of studies like this`;
  if (share >= 0.8) {
    return `Enough: ${found}.`;
  }
  return share >= 0.5 ? `More or less: ${found}.` : `Too little: ${found}.`;
}

function outlookColumns(axis: Axis, margin: number): Column<Row>[] {
  return [
    { key: "what", head: "Study", rowHeader: true, cell: (r) => r.what },
    {
      key: "picture",
      head: <IntervalAxis axis={axis} />,
      cell: (r) => <IntervalRow axis={axis} figure={around(margin, r.forecast.halfWidth)} />,
    },
    {
      key: "width",
      head: "Interval of a difference",
      cell: (r) =>
        r.forecast.halfWidth.value === undefined ? (
          <span className="text-ink-soft">none: {r.forecast.halfWidth.undefinedReason}</span>
        ) : (
          <>
            ± {fixed(r.forecast.halfWidth.value, 1)}
            <span className="block text-sm text-ink-soft">
              ± {fixed(r.forecast.correctedHalfWidth.value ?? 0, 1)} corrected
            </span>
          </>
        ),
    },
    {
      key: "found",
      head: "Recommended",
      align: "right",
      cell: (r) =>
        r.forecast.chanceClear.value === undefined || r.forecast.chanceFound.value === undefined ? (
          "–"
        ) : (
          <>
            {chance(r.forecast.chanceClear.value)}
            <span className="block text-sm text-ink-soft">clear of one: {chance(r.forecast.chanceFound.value)}</span>
          </>
        ),
    },
    {
      key: "hours",
      head: "Hours of grading",
      align: "right",
      cell: (r) => (
        <>
          {fixed(r.forecast.hours, 0)}
          <span className="block text-sm text-ink-soft">{fixed(r.forecast.hoursARater, 1)} a rater</span>
        </>
      ),
    },
  ];
}
