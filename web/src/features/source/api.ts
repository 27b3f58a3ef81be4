import { queryOptions, useMutation } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys, useStudyChanged } from "../study";

const ofCandidate = (studyId: string, candidateId: string) => ({ params: { path: { studyId, candidateId } } });

export const sourcesOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "sources"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/sources", { params: { path: { studyId } }, signal })),
  });

export function useWriteSource(studyId: string, candidateId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["WriteSource"]) =>
      unwrap(api.PUT("/api/studies/{studyId}/sources/{candidateId}", { ...ofCandidate(studyId, candidateId), body })),
    onSuccess: changed,
  });
}

export function useRemoveSource(studyId: string, candidateId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: () =>
      unwrap(api.DELETE("/api/studies/{studyId}/sources/{candidateId}", ofCandidate(studyId, candidateId))),
    onSuccess: changed,
  });
}

export function useTrySource(studyId: string, candidateId: string) {
  return useMutation({
    mutationFn: (text: string) =>
      unwrap(
        api.POST("/api/studies/{studyId}/sources/{candidateId}/try-out", {
          ...ofCandidate(studyId, candidateId),
          body: { text },
        }),
      ),
  });
}
