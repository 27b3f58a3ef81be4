import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const turnVerdictsOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "turn-verdicts"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/turn-verdicts", { params: { path: { studyId } }, signal })),
  });

export const workOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "work"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/work", { params: { path: { studyId } }, signal })),
  });

type Saying = { answerId: string; turn: number; verdict: Schemas["Said"]["verdict"] | undefined };

/** Says of a reply whether it does what was asked, or takes it back. */
export function useSayOfTurn(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ answerId, turn, verdict }: Saying) =>
      unwrap(
        api.PUT("/api/studies/{studyId}/answers/{answerId}/turns/{turn}/verdict", {
          params: { path: { studyId, answerId, turn } },
          body: verdict === undefined ? {} : { verdict },
        }),
      ),
    onSuccess: (own, { answerId }) =>
      client.setQueryData(turnVerdictsOf(studyId).queryKey, (all) =>
        all === undefined ? all : [...all.filter((s) => s.answerId !== answerId), ...own],
      ),
  });
}

export function useAskWhereNeeded(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      unwrap(api.POST("/api/studies/{studyId}/runs/follow-ups-where-needed", { params: { path: { studyId } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.one(studyId) }),
  });
}
