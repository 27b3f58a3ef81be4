import { queryOptions, useMutation } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys, useStudyChanged } from "../study";

const ofStudy = (studyId: string) => ({ params: { path: { studyId } } });
const ofCandidate = (studyId: string, candidateId: string) => ({ params: { path: { studyId, candidateId } } });

export const candidatesOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "candidates"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/candidates", { ...ofStudy(studyId), signal })),
  });

export const unlikeSettings = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "candidates", "unlike"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/candidates/unlike", { ...ofStudy(studyId), signal })),
  });

export const putCandidate = (studyId: string, candidateId: string, body: Schemas["WriteCandidate"]) =>
  unwrap(api.PUT("/api/studies/{studyId}/candidates/{candidateId}", { ...ofCandidate(studyId, candidateId), body }));

export function useConsider(studyId: string, candidateId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["Consider"]) =>
      unwrap(
        api.PUT("/api/studies/{studyId}/candidates/{candidateId}/considerations", {
          ...ofCandidate(studyId, candidateId),
          body,
        }),
      ),
    onSuccess: changed,
  });
}

export const BLANK_CANDIDATE: Schemas["CandidateContent"] = {
  name: "",
  version: "",
  settings: [],
  price: { caps: "" },
  note: "",
  considerations: [],
  baseline: false,
};

export function useAddCandidate(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (content: Schemas["CandidateContent"]) =>
      unwrap(api.POST("/api/studies/{studyId}/candidates", { ...ofStudy(studyId), body: { content } })),
    onSuccess: changed,
  });
}

export function useRemoveCandidate(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (candidateId: string) =>
      unwrap(api.DELETE("/api/studies/{studyId}/candidates/{candidateId}", ofCandidate(studyId, candidateId))),
    onSuccess: changed,
  });
}
