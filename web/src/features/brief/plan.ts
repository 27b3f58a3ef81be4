import { useQueries } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { useKept } from "../../ui/useKept";
import { candidatesOfStudy } from "../candidate";
import { promptsOfStudy } from "../prompt";
import { peopleOfStudy } from "../study";

export type GradedBy = Schemas["PlannedSize"]["gradedBy"];

/** A study that is thought of. */
export type Plan = {
  promptsAKind: number;
  kinds: number;
  candidates: number;
  attempts: number;
  raters: number;
  ratersAnAnswer: number;
  minutes: number;
  gradedBy: GradedBy;
};

/** Where nothing is known of a study yet. */
export const USUAL_PLAN: Plan = {
  promptsAKind: 4,
  kinds: 4,
  candidates: 3,
  attempts: 1,
  raters: 4,
  ratersAnAnswer: 3,
  minutes: 6,
  gradedBy: "MIDDLING",
};

export const MOST = {
  kinds: 6,
  promptsAKind: 12,
  candidates: 8,
  attempts: 4,
  raters: 12,
  ratersAnAnswer: 12,
  minutes: 30,
};

/** The size of the study as it stands, where it has anything to go by; the rest is a usual study. */
function planOf(prompts: Schemas["PromptView"][], candidates: number, raters: number): Plan {
  const sound = prompts.filter((p) => p.fault === undefined);
  const kinds = new Set(sound.map((p) => p.kind.id)).size;
  return {
    ...USUAL_PLAN,
    ...(kinds > 0 && {
      kinds: Math.min(kinds, MOST.kinds),
      promptsAKind: Math.min(Math.round(sound.length / kinds), MOST.promptsAKind),
    }),
    ...(candidates >= 2 && { candidates: Math.min(candidates, MOST.candidates) }),
    ...(raters >= 2 && { raters: Math.min(raters, MOST.raters) }),
  };
}

/** The study that is thought of: what was set on the dials, and where nothing was, the study as it stands. */
export function usePlan(studyId: string) {
  const [prompts, candidates, people] = useQueries({
    queries: [promptsOfStudy(studyId), candidatesOfStudy(studyId), peopleOfStudy(studyId)],
  });
  const { chosen, choose } = useKept<Plan>(`dials.${studyId}`);
  const pending = prompts.isPending || candidates.isPending || people.isPending;
  const whole: Plan = {
    ...planOf(prompts.data ?? [], candidates.data?.length ?? 0, people.data?.filter((p) => p.grades).length ?? 0),
    ...chosen,
  };
  return {
    pending,
    plan: { ...whole, ratersAnAnswer: Math.min(whole.ratersAnAnswer, whole.raters) },
    change: choose,
  };
}

/** As the server is asked what it could show. */
export function sizeOf(plan: Plan, rule: Schemas["RuleTerms"]): Omit<Schemas["PlannedSize"], "effort"> {
  const { promptsAKind, kinds, ...rest } = plan;
  return { ...rest, promptsByKind: Array<number>(kinds).fill(promptsAKind), rule };
}
