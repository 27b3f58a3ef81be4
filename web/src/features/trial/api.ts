import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { at } from "../../api/base";
import { api, type Schemas, unwrap } from "../../api/client";
import { useLive } from "../../api/live";
import { studyKeys } from "../study";

export const toolchainsOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "toolchains"),
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/toolchains", { params: { path: { studyId } }, signal })),
  });

export const checksOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "checks"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/checks", { params: { path: { studyId } }, signal })),
  });

export const trialsOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "trials"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/trials", { params: { path: { studyId } }, signal })),
  });

/** Follows trials while some wait or run. */
export const useLiveTrials = (studyId: string, moving: boolean) =>
  useLive(`/api/studies/${studyId}/trials/events`, trialsOf(studyId).queryKey, moving);

export const trialOf = (studyId: string, trialId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "trials", trialId),
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/trials/{trialId}", { params: { path: { studyId, trialId } }, signal })),
  });

/** A picture of an answer's page, taken in a trial. */
export const pictureAt =
  (studyId: string, trialId: string) =>
  (place: number): string =>
    at(`/api/studies/${studyId}/trials/${trialId}/pictures/${place}`);

export const putCheck = (studyId: string, promptId: string, body: Schemas["WriteCheck"]) =>
  unwrap(api.PUT("/api/studies/{studyId}/prompts/{promptId}/check", { params: { path: { studyId, promptId } }, body }));

export function useRemoveCheck(studyId: string, promptId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      unwrap(
        api.DELETE("/api/studies/{studyId}/prompts/{promptId}/check", { params: { path: { studyId, promptId } } }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.one(studyId) }),
  });
}

export function useTryCheck(studyId: string, promptId: string) {
  return useMutation({
    mutationFn: (body: Schemas["TryCheck"]) =>
      unwrap(
        api.POST("/api/studies/{studyId}/prompts/{promptId}/check/try", {
          params: { path: { studyId, promptId } },
          body,
        }),
      ),
  });
}

type Moving = { go: "start"; body: Schemas["StartTrials"] } | { go: "stop" } | { go: "on" };

/** Starts trials, stops them or goes on with them; each tells the whole board. */
export function useMoveTrials(studyId: string) {
  const client = useQueryClient();
  const params = { params: { path: { studyId } } };
  return useMutation({
    mutationFn: (moving: Moving) => {
      switch (moving.go) {
        case "start":
          return unwrap(api.POST("/api/studies/{studyId}/trials", { ...params, body: moving.body }));
        case "stop":
          return unwrap(api.POST("/api/studies/{studyId}/trials/stop", params));
        case "on":
          return unwrap(api.POST("/api/studies/{studyId}/trials/go-on", params));
      }
    },
    onSuccess: (board) => client.setQueryData(trialsOf(studyId).queryKey, board),
  });
}

/** The commit that a name means in a repository of the server. */
export function useLookUpCommit(studyId: string) {
  return useMutation({
    mutationFn: (body: Schemas["GitPlace"]) =>
      unwrap(api.POST("/api/studies/{studyId}/starting-code/git/listing", { params: { path: { studyId } }, body })),
  });
}
