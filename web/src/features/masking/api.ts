import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys, useStepsChanged } from "../study";

const ofStudy = (studyId: string) => ({ params: { path: { studyId } } });

export const maskingOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "masking"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/masking", { ...ofStudy(studyId), signal })),
  });

export const putWords = (studyId: string, body: Schemas["WriteWords"]) =>
  unwrap(api.PUT("/api/studies/{studyId}/masking/words", { ...ofStudy(studyId), body }));

export function useDecide(studyId: string) {
  const client = useQueryClient();
  const stepsChanged = useStepsChanged(studyId);
  return useMutation({
    mutationFn: (decisions: Schemas["Decision"][]) =>
      unwrap(api.POST("/api/studies/{studyId}/masking/decisions", { ...ofStudy(studyId), body: { decisions } })),
    onSuccess: (masking) => {
      client.setQueryData(maskingOfStudy(studyId).queryKey, masking);
      stepsChanged();
    },
  });
}
