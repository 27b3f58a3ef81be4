import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { at } from "../../api/base";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const evidenceOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "evidence"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/evidence", { params: { path: { studyId } }, signal })),
  });

export const gradedEvidenceOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "graded-evidence"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/evidence", { params: { path: { studyId } }, signal })),
  });

export const repairsOf = (studyId: string, answerId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "repairs", answerId),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/answers/{answerId}/repairs", {
          params: { path: { studyId, answerId } },
          signal,
        }),
      ),
  });

/** What came of a repair, item by item. */
export const resultOfRepair = (studyId: string, answerId: string, repairId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "repair", repairId),
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/answers/{answerId}/repairs/{repairId}", {
          params: { path: { studyId, answerId, repairId } },
          signal,
        }),
      ),
  });

/** A picture of the page of an answer as it was repaired. */
export const repairPictureAt =
  (studyId: string, answerId: string, repairId: string) =>
  (place: number): string =>
    at(`/api/studies/${studyId}/answers/${answerId}/repairs/${repairId}/pictures/${place}`);

export const repairableOf = (studyId: string, answerId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "repairable", answerId),
    retry: false,
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/answers/{answerId}/repairable", {
          params: { path: { studyId, answerId } },
          signal,
        }),
      ),
  });

export function useRepairAnswer(studyId: string, answerId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (files: Schemas["ChangedFile"][]) =>
      unwrap(
        api.POST("/api/studies/{studyId}/answers/{answerId}/repairs", {
          params: { path: { studyId, answerId } },
          body: { files },
        }),
      ),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: repairsOf(studyId, answerId).queryKey });
      await client.invalidateQueries({ queryKey: evidenceOf(studyId).queryKey });
    },
  });
}
