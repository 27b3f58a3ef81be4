import { keepPreviousData, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const costsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "costs"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/costs", { params: { path: { studyId } }, signal })),
  });

/** Of the use that is stated where none is asked about. */
export const teamCostsOf = (studyId: string, use?: Schemas["TeamUse"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "costs", JSON.stringify(use ?? "stated")),
    queryFn: ({ signal }) =>
      unwrap(
        use === undefined
          ? api.GET("/api/studies/{studyId}/recommendation/team-costs", { params: { path: { studyId } }, signal })
          : api.POST("/api/studies/{studyId}/recommendation/team-costs", {
              params: { path: { studyId } },
              body: use,
              signal,
            }),
      ),
    placeholderData: keepPreviousData,
  });

/** Keeps a use with the study, or takes it back. */
export function useStateUse(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (use: Schemas["TeamUse"] | null) => {
      const params = { path: { studyId } };
      if (use === null) {
        await unwrap(api.DELETE("/api/studies/{studyId}/stated-use", { params }));
      } else {
        await unwrap(api.PUT("/api/studies/{studyId}/stated-use", { params, body: use }));
      }
    },
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.part(studyId, "costs") }),
  });
}
