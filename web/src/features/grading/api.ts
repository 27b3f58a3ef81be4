import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const sheetKeys = {
  all: ["sheets"] as const,
  mine: () => [...sheetKeys.all, "mine"] as const,
  one: (sheetId: string) => [...sheetKeys.all, "one", sheetId] as const,
};

export const mySheets = () =>
  queryOptions({
    queryKey: sheetKeys.mine(),
    queryFn: ({ signal }) => unwrap(api.GET("/api/sheets", { signal })),
  });

export const oneSheet = (sheetId: string) =>
  queryOptions({
    queryKey: sheetKeys.one(sheetId),
    queryFn: ({ signal }) => unwrap(api.GET("/api/sheets/{sheetId}", { params: { path: { sheetId } }, signal })),
  });

export const gradingOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "grading"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/grading", { params: { path: { studyId } }, signal })),
    refetchInterval: 30_000,
  });

/** Sends one grade; used by the outbox, which keeps it until this answers. */
export const putGrade = (sheetId: string, answerId: string, criterionId: string, body: Schemas["SetGrade"]) =>
  unwrap(
    api.PUT("/api/sheets/{sheetId}/answers/{answerId}/grades/{criterionId}", {
      params: { path: { sheetId, answerId, criterionId } },
      body,
    }),
  );

export const putReason = (sheetId: string, answerId: string, body: Schemas["SetReason"]) =>
  unwrap(api.PUT("/api/sheets/{sheetId}/answers/{answerId}/reason", { params: { path: { sheetId, answerId } }, body }));

export function useSend(sheetId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(api.POST("/api/sheets/{sheetId}/send", { params: { path: { sheetId } } })),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: sheetKeys.all });
      await client.invalidateQueries({ queryKey: studyKeys.all });
    },
  });
}

export function useTakeBack(sheetId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(api.POST("/api/sheets/{sheetId}/take-back", { params: { path: { sheetId } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: sheetKeys.all }),
  });
}

export function useCloseRound(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(api.POST("/api/studies/{studyId}/round/close", { params: { path: { studyId } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
}

export function useInvite(studyId: string) {
  return useMutation({
    mutationFn: (raterId: string) =>
      unwrap(api.POST("/api/studies/{studyId}/raters/{raterId}/link", { params: { path: { studyId, raterId } } })),
  });
}

export const planOf = (studyId: string, body: Schemas["PlanRequest"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "plan", JSON.stringify(body)),
    queryFn: ({ signal }) =>
      unwrap(api.POST("/api/studies/{studyId}/plan", { params: { path: { studyId } }, body, signal })),
  });

export function useOpenRound(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["PlanRequest"]) =>
      unwrap(api.POST("/api/studies/{studyId}/round", { params: { path: { studyId } }, body })),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: sheetKeys.all });
      await client.invalidateQueries({ queryKey: studyKeys.all });
    },
  });
}
