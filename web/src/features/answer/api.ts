import { queryOptions, useMutation } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys, useStudyChanged } from "../study";

export const answersOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "answers"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/answers", { params: { path: { studyId } }, signal })),
  });

export const changesOfAnswer = (studyId: string, answerId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "changes", answerId),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/answers/{answerId}/changes", {
          params: { path: { studyId, answerId } },
          signal,
        }),
      ),
  });

export const followUpRule = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "follow-up-rule"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/follow-up-rule", { params: { path: { studyId } }, signal })),
  });

export function useWriteFollowUpRule(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["WriteFollowUpRule"]) =>
      unwrap(api.PUT("/api/studies/{studyId}/follow-up-rule", { params: { path: { studyId } }, body })),
    onSuccess: changed,
  });
}

export const gradesOfPrompt = (studyId: string, promptId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "grades", promptId),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/prompts/{promptId}/grades", {
          params: { path: { studyId, promptId } },
          signal,
        }),
      ),
  });

export function useAddAnswer(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["AddAnswer"]) =>
      unwrap(api.POST("/api/studies/{studyId}/answers", { params: { path: { studyId } }, body })),
    onSuccess: changed,
  });
}

export function useWriteAnswer(studyId: string, answerId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["WriteAnswer"]) =>
      unwrap(api.PUT("/api/studies/{studyId}/answers/{answerId}", { params: { path: { studyId, answerId } }, body })),
    onSuccess: changed,
  });
}

export function useRemoveAnswer(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (answerId: string) =>
      unwrap(api.DELETE("/api/studies/{studyId}/answers/{answerId}", { params: { path: { studyId, answerId } } })),
    onSuccess: changed,
  });
}
