import { keepPreviousData, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { studyKeys } from "../study";
import type { Shown } from "./prompts/address";

export const recommendationOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "recommendation"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation", { params: { path: { studyId } }, signal })),
  });

export const looksAtStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "looks"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/looks", { params: { path: { studyId } }, signal })),
  });

/** What was seen at a look: it never changes. */
export const seenAtLook = (studyId: string, number: number) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "looks", String(number)),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/looks/{number}", { params: { path: { studyId, number } }, signal })),
    staleTime: Infinity,
  });

export const hungOnAtLook = (studyId: string, number: number) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "looks", `${number} robustness`),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/looks/{number}/robustness", { params: { path: { studyId, number } }, signal }),
      ),
    staleTime: Infinity,
  });

export function useTakeLook(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(api.POST("/api/studies/{studyId}/looks", { params: { path: { studyId } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
}

export const actsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "acts"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/acts", { params: { path: { studyId } }, signal })),
  });

export const groupsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "groups"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/groups", { params: { path: { studyId } }, signal })),
  });

/** Which study this one follows, if it follows one. */
export const followsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "follows"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/follows", { params: { path: { studyId } }, signal })),
    staleTime: Infinity,
  });

export const robustnessOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "robustness"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/robustness", { params: { path: { studyId } }, signal })),
  });

/** A window of what each candidate made of each prompt; what was there before stays until it has come. */
export const promptTableOf = (studyId: string, { kindId, size, area, order, from }: Shown) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "recommendation", JSON.stringify(["prompts", kindId, size, area, order, from])),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/recommendation/prompts", {
          params: {
            path: { studyId },
            query: {
              ...(kindId !== undefined && { kindId }),
              ...(size !== undefined && { size }),
              ...(area !== undefined && { area }),
              ...order,
              from,
            },
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });
