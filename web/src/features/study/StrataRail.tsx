import { useQuery } from "@tanstack/react-query";
import type { CSSProperties, ReactNode } from "react";
import { NavLink } from "react-router";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { Query } from "../../ui/Query";
import { stepsOfStudy } from "./api";

type Step = Schemas["StepState"]["step"];

const LAYERS: Record<Step, { name: string; path: string; earth: string }> = {
  BRIEF: { name: "Brief", path: "brief", earth: "var(--lichen-wash)" },
  PROMPTS: { name: "Prompts", path: "prompts", earth: "var(--ochre-wash)" },
  CANDIDATES: { name: "Candidates", path: "candidates", earth: "var(--clay-wash)" },
  ANSWERS: { name: "Answers", path: "answers", earth: "var(--heather-wash)" },
  RUBRIC: { name: "Rubric", path: "rubric", earth: "var(--tarn-wash)" },
  GRADING: { name: "Grading", path: "grading", earth: "var(--lichen-wash)" },
  AGREEMENT: { name: "Agreement", path: "agreement", earth: "var(--ochre-wash)" },
  RECOMMENDATION: { name: "Recommendation", path: "recommendation", earth: "var(--clay-wash)" },
};

/** Edges of layers, uneven like those of a cut bank; each layer takes the next. */
const EDGES = [
  "M0 6C30 1 62 10 104 6S176 2 220 7",
  "M0 5C44 11 80 1 130 5S190 9 220 4",
  "M0 7C26 3 70 2 112 8S180 3 220 6",
  "M0 4C50 8 92 10 140 4S200 4 220 8",
];

/** The job as a cut through a bank: one layer a step, filled as far as it is done. Navigation and progress in one. */
export function StrataRail({ study }: { study: Schemas["StudySummary"] }) {
  const steps = useQuery(stepsOfStudy(study.id));
  return (
    <nav aria-label="Steps of the study" className="shrink-0 border-r border-rule print:hidden md:w-[220px]">
      <p className="px-4 pt-4 pb-2 font-serif leading-snug font-semibold break-words">{study.title}</p>
      <Query of={steps} what="the steps">
        {(states) => (
          <>
            <ol className="pb-6 max-md:flex max-md:overflow-x-auto max-md:pb-0">
              {states.map((state, i) => (
                <Layer key={state.step} state={state} edge={EDGES[i % EDGES.length] ?? ""} />
              ))}
            </ol>
            {(study.role === "LEAD" || !study.blind) && (
              <ul className="flex flex-wrap gap-x-4 border-t border-rule px-4 py-3 text-sm md:block">
                {!study.blind && <Beside to="search">Search</Beside>}
                {study.role === "LEAD" && <Beside to="people">People</Beside>}
                {study.role === "LEAD" && !study.blind && <Beside to="record">What was done</Beside>}
              </ul>
            )}
          </>
        )}
      </Query>
    </nav>
  );
}

/** What belongs to no step. */
function Beside({ to, children }: { to: string; children: ReactNode }) {
  return (
    <li className="py-0.5">
      <NavLink
        to={to}
        className={({ isActive }) =>
          classes("text-ink-soft hover:underline hover:underline-offset-4", isActive && "font-semibold text-ink")
        }
      >
        {children}
      </NavLink>
    </li>
  );
}

function Layer({ state, edge }: { state: Schemas["StepState"]; edge: string }) {
  const layer = LAYERS[state.step];
  const fill: CSSProperties = {
    backgroundImage: `linear-gradient(to right, ${layer.earth} ${state.done * 100}%, transparent ${state.done * 100}%)`,
  };
  return (
    <li className="max-md:min-w-44">
      <NavLink
        to={layer.path}
        style={fill}
        className={({ isActive }) =>
          classes(
            "relative block px-4 pt-2.5 pb-3 hover:underline hover:underline-offset-4",
            isActive && "shadow-[inset_4px_0_0_var(--heather)]",
          )
        }
      >
        {({ isActive }) => (
          <>
            <span className={classes("block font-serif text-[1.02rem]", isActive && "font-semibold")}>
              {layer.name}
            </span>
            <span className="block text-sm text-ink-soft">{state.line}</span>
            {state.missing && <span className="mt-0.5 block text-sm leading-snug text-clay">{state.missing}</span>}
            <svg
              className="absolute inset-x-0 -bottom-[5px] h-[11px] w-full"
              viewBox="0 0 220 11"
              preserveAspectRatio="none"
              aria-hidden="true"
            >
              <path d={edge} fill="none" stroke="var(--edge)" strokeWidth="1" vectorEffect="non-scaling-stroke" />
            </svg>
          </>
        )}
      </NavLink>
    </li>
  );
}
