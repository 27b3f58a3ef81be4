import { keepPreviousData, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, currentOf, type Schemas, unwrap } from "../../api/client";
import { useDraft } from "../../ui/useDraft";
import { studyKeys, useStepsChanged, useStudyChanged } from "../study";

type RubricView = Schemas["RubricView"];

export type CriterionDraft = Schemas["CriterionContent"];

const ofStudy = (studyId: string) => ({ params: { path: { studyId } } });

export const rubricOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "rubric"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/rubric", { ...ofStudy(studyId), signal })),
  });

export const rubricVersion = (studyId: string, number: number) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "rubric", String(number)),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/rubric/versions/{number}", { params: { path: { studyId, number } }, signal }),
      ),
  });

export const scoreExamples = (studyId: string, body: Schemas["Weighing"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "examples", JSON.stringify(body)),
    queryFn: ({ signal }) =>
      unwrap(api.POST("/api/studies/{studyId}/rubric/examples", { ...ofStudy(studyId), body, signal })),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

/** A criterion as it is read, in the form in which it is written. */
export function contentOf(criterion: Schemas["CriterionView"]): CriterionDraft {
  const { id: _, levels, ...rest } = criterion;
  return {
    ...rest,
    levels: levels.map((l) => ({ name: l.name === String(l.level) ? "" : l.name, anchors: l.anchors })),
  };
}

/** The draft's place: which version it is written onto, and at which revision. One number orders both. */
type Place = { number: number; revision: number };

const REVISIONS = 1_000_000;
const versionOf = ({ number, revision }: Place) => number * REVISIONS + revision;
const placeOf = (version: number): Place => ({
  number: Math.floor(version / REVISIONS),
  revision: version % REVISIONS,
});

const draftOf = (view: RubricView) => ({
  value: view.criteria.map(contentOf),
  version: versionOf({ number: view.version.number, revision: view.revision }),
});

/** What the server would refuse and nobody means: traits that are still empty. */
const cleaned = (criteria: CriterionDraft[]) =>
  criteria.map((c) => ({ ...c, traits: c.traits.filter((t) => t.trim() !== "") }));

/** The rubric's draft, shared by the pages that write it. */
export function useRubricDraft(studyId: string, rubric: RubricView) {
  const stepsChanged = useStepsChanged(studyId);
  const client = useQueryClient();
  return useDraft<CriterionDraft[]>({
    name: `rubric.${studyId}`,
    ...draftOf(rubric),
    save: async (criteria, version) => {
      const body = { ...placeOf(version), criteria: cleaned(criteria) };
      const saved = await unwrap(api.PUT("/api/studies/{studyId}/rubric", { ...ofStudy(studyId), body }));
      // What the next page opens with is what was saved last, not what this one was opened with.
      client.setQueryData(rubricOfStudy(studyId).queryKey, saved);
      stepsChanged();
      return draftOf(saved);
    },
    current: (problem) => draftOf(currentOf<RubricView>(problem)),
  });
}

export function usePublish(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (note: string) =>
      unwrap(api.POST("/api/studies/{studyId}/rubric/publish", { ...ofStudy(studyId), body: { note } })),
    onSuccess: changed,
  });
}

export const proposalsOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "rubric", "proposals"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/rubric/proposals", { ...ofStudy(studyId), signal })),
  });

export function usePropose(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["ProposeAnchor"]) =>
      unwrap(api.POST("/api/studies/{studyId}/rubric/proposals", { ...ofStudy(studyId), body })),
    onSuccess: changed,
  });
}

/** What becomes of a proposal. */
type ProposalStep = { id: string } & ({ step: "take"; words: string } | { step: "decline" });

export function useDecide(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (decision: ProposalStep) => {
      const params = { path: { studyId, proposalId: decision.id } };
      return decision.step === "take"
        ? unwrap(
            api.POST("/api/studies/{studyId}/rubric/proposals/{proposalId}/take", {
              params,
              body: { words: decision.words },
            }),
          )
        : unwrap(api.POST("/api/studies/{studyId}/rubric/proposals/{proposalId}/decline", { params }));
    },
    onSettled: changed,
  });
}
