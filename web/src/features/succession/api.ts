import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const sinceTheLast = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "since"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/since", { params: { path: { studyId } }, signal })),
  });

/** Begins the next study from one. */
export function useBeginNext(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["BeginNext"]) =>
      unwrap(api.POST("/api/studies/{studyId}/next", { params: { path: { studyId } }, body })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
}
