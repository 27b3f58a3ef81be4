import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { useLive } from "../../api/live";
import { studyKeys, useStudyChanged } from "../study";

const ofStudy = (studyId: string) => ({ params: { path: { studyId } } });
const ofRun = (studyId: string, runId: string) => ({ params: { path: { studyId, runId } } });

export const runsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "runs"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/runs", { ...ofStudy(studyId), signal })),
  });

export const oneRun = (studyId: string, runId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "runs", runId),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/runs/{runId}", { ...ofRun(studyId, runId), signal })),
  });

export const lateReplyOf = (studyId: string, runId: string, place: number) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "late-reply", runId, String(place)),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/runs/{runId}/cells/{place}/late-reply", {
          params: { path: { studyId, runId, place } },
          signal,
        }),
      ),
  });

export const runForecast = (studyId: string, body: Schemas["StartRun"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "run-forecast", JSON.stringify(body)),
    queryFn: ({ signal }) =>
      unwrap(api.POST("/api/studies/{studyId}/runs/forecast", { ...ofStudy(studyId), body, signal })),
    enabled: body.promptIds.length > 0 && body.candidateIds.length > 0,
    retry: false,
  });

export function useStartRun(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["StartRun"]) =>
      unwrap(api.POST("/api/studies/{studyId}/runs", { ...ofStudy(studyId), body })),
    onSuccess: changed,
  });
}

export function useAskFollowUp(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["AskFollowUp"]) =>
      unwrap(api.POST("/api/studies/{studyId}/runs/follow-up", { ...ofStudy(studyId), body })),
    onSuccess: changed,
  });
}

type Step =
  { stop: { cutOff: boolean } } | { step: "resume" | "again" | "failed-again" } | { budget: Schemas["Budget"] };

const STEPS = {
  resume: "/api/studies/{studyId}/runs/{runId}/resume",
  again: "/api/studies/{studyId}/runs/{runId}/again",
  "failed-again": "/api/studies/{studyId}/runs/{runId}/failed-again",
} as const;

/** Stops a run, lets it go on, asks again what was turned away or failed, or gives it another budget. */
export function useRunStep(studyId: string, runId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (step: Step) => {
      if ("stop" in step) {
        return unwrap(
          api.POST("/api/studies/{studyId}/runs/{runId}/stop", { ...ofRun(studyId, runId), body: step.stop }),
        );
      }
      if ("budget" in step) {
        return unwrap(
          api.PUT("/api/studies/{studyId}/runs/{runId}/budget", { ...ofRun(studyId, runId), body: step.budget }),
        );
      }
      return unwrap(api.POST(STEPS[step.step], ofRun(studyId, runId)));
    },
    onSuccess: (run) => client.setQueryData(oneRun(studyId, runId).queryKey, run),
  });
}

/** Keeps a run's board as the server tells it; a lost connection is taken up again by the browser. */
export const useLiveRun = (studyId: string, runId: string, going: boolean) =>
  useLive(`/api/studies/${studyId}/runs/${runId}/events`, oneRun(studyId, runId).queryKey, going);
