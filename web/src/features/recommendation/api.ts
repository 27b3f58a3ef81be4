import { queryOptions } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const recommendationOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "recommendation"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation", { params: { path: { studyId } }, signal })),
  });

export const robustnessOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "robustness"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/robustness", { params: { path: { studyId } }, signal })),
  });
