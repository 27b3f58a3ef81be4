import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { sheetKeys } from "../desk";
import { studyKeys } from "../study";

export const gradingOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "grading"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/grading", { params: { path: { studyId } }, signal })),
    refetchInterval: 30_000,
  });

export const oversightOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "oversight"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/oversight", { params: { path: { studyId } }, signal })),
    refetchInterval: 60_000,
  });

/** What a lead does with one sheet. */
export type SheetStep = { sheetId: string } & (
  | { step: "withdraw"; reason: string }
  | { step: "give-back"; reason: string }
  | { step: "hand-over"; raterId: string; reason: string }
);

function take(studyId: string, step: SheetStep) {
  const params = { path: { studyId, sheetId: step.sheetId } };
  switch (step.step) {
    case "withdraw":
      return unwrap(
        api.POST("/api/studies/{studyId}/sheets/{sheetId}/withdraw", { params, body: { reason: step.reason } }),
      );
    case "give-back":
      return unwrap(
        api.POST("/api/studies/{studyId}/sheets/{sheetId}/give-back", { params, body: { reason: step.reason } }),
      );
    case "hand-over":
      return unwrap(
        api.POST("/api/studies/{studyId}/sheets/{sheetId}/hand-over", {
          params,
          body: { raterId: step.raterId, reason: step.reason },
        }),
      );
  }
}

export function useSheetStep(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (step: SheetStep) => take(studyId, step),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: sheetKeys.all });
      await client.invalidateQueries({ queryKey: studyKeys.all });
    },
  });
}

export function useRemind(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ raterId, words }: { raterId: string; words: string }) =>
      unwrap(
        api.POST("/api/studies/{studyId}/raters/{raterId}/reminders", {
          params: { path: { studyId, raterId } },
          body: { words },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
}

export function useCloseRound(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (reason: string) =>
      unwrap(api.POST("/api/studies/{studyId}/round/close", { params: { path: { studyId } }, body: { reason } })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
}

export function useReopenRound(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (reason: string) =>
      unwrap(api.POST("/api/studies/{studyId}/round/reopen", { params: { path: { studyId } }, body: { reason } })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
}

export function useInvite(studyId: string) {
  return useMutation({
    mutationFn: (raterId: string) =>
      unwrap(api.POST("/api/studies/{studyId}/raters/{raterId}/link", { params: { path: { studyId, raterId } } })),
  });
}

export type DealFrom = Schemas["DealSheets"]["from"];

/** What dealing sheets to a rater would come to. */
export const dealOf = (studyId: string, body: Schemas["DealSheets"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "deal", body.raterId, body.from),
    queryFn: ({ signal }) =>
      unwrap(api.POST("/api/studies/{studyId}/round/deal/preview", { params: { path: { studyId } }, body, signal })),
  });

export function useDeal(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["DealSheets"]) =>
      unwrap(api.POST("/api/studies/{studyId}/round/deal", { params: { path: { studyId } }, body })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
}

export const takingOutOf = (studyId: string, raterId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "take-out", raterId),
    queryFn: ({ signal }) =>
      unwrap(
        api.POST("/api/studies/{studyId}/round/take-out/preview", {
          params: { path: { studyId } },
          body: { raterId },
          signal,
        }),
      ),
  });

export function useTakeOut(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["TakeOut"]) =>
      unwrap(api.POST("/api/studies/{studyId}/round/take-out", { params: { path: { studyId } }, body })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
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
