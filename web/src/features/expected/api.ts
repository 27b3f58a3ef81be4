import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const claimsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "claims"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/claims", { params: { path: { studyId } }, signal })),
  });

export function useWriteClaims(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (claims: Schemas["ClaimContent"][]) =>
      unwrap(api.PUT("/api/studies/{studyId}/claims", { params: { path: { studyId } }, body: { claims } })),
    onSuccess: (claims) => client.setQueryData(claimsOfStudy(studyId).queryKey, claims),
  });
}

export const expectedOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "expected"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/expected", { params: { path: { studyId } }, signal })),
  });

/** Says whom somebody’s words are taken for. */
export function useMatchWords(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ accountId, candidateId }: { accountId: string; candidateId: string | undefined }) =>
      unwrap(
        api.PUT("/api/studies/{studyId}/expectations/{accountId}/match", {
          params: { path: { studyId, accountId } },
          body: candidateId === undefined ? {} : { candidateId },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.part(studyId, "expected") }),
  });
}
