import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const secretsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "secrets"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/secrets", { params: { path: { studyId } }, signal })),
  });

/** Says that something may be sent, or holds it back again. */
export function useDecideOnSecret(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ digest, why }: { digest: string; why: string | undefined }) => {
      const params = { path: { studyId, digest } };
      return unwrap(
        why === undefined
          ? api.DELETE("/api/studies/{studyId}/secrets/{digest}", { params })
          : api.PUT("/api/studies/{studyId}/secrets/{digest}", { params, body: { why } }),
      );
    },
    onSuccess: () => client.invalidateQueries({ queryKey: secretsOfStudy(studyId).queryKey }),
  });
}
