import { queryOptions, useMutation } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys, useStudyChanged } from "../study";

export const putBrief = (studyId: string, body: Schemas["WriteBrief"]) =>
  unwrap(api.PUT("/api/studies/{studyId}/brief", { params: { path: { studyId } }, body }));

export const briefOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "brief"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/brief", { params: { path: { studyId } }, signal })),
  });

export const forecastOf = (studyId: string, body: Schemas["PlannedSize"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "forecast", JSON.stringify(body)),
    queryFn: ({ signal }) =>
      unwrap(api.POST("/api/studies/{studyId}/forecast", { params: { path: { studyId } }, body, signal })),
    staleTime: Infinity,
  });

export const withholdingOf = (studyId: string, body: Schemas["PlannedSize"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "forecast withholding", JSON.stringify(body)),
    queryFn: ({ signal }) =>
      unwrap(api.POST("/api/studies/{studyId}/forecast/withholding", { params: { path: { studyId } }, body, signal })),
    staleTime: Infinity,
  });

export const usesOf = (studyId: string, body: Schemas["PlannedSize"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "forecast uses", JSON.stringify(body)),
    queryFn: ({ signal }) =>
      unwrap(api.POST("/api/studies/{studyId}/forecast/uses", { params: { path: { studyId } }, body, signal })),
    staleTime: Infinity,
  });

export function useCloseBrief(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (size: Schemas["PlannedSize"]) =>
      unwrap(api.POST("/api/studies/{studyId}/brief/close", { params: { path: { studyId } }, body: { size } })),
    onSuccess: changed,
  });
}

export function useReopenBrief(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (reason: string) =>
      unwrap(api.POST("/api/studies/{studyId}/brief/reopen", { params: { path: { studyId } }, body: { reason } })),
    onSuccess: changed,
  });
}
