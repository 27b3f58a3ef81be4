import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap, upload } from "../../api/client";
import { studyKeys, useStudyChanged } from "../study";

const ofStudy = (studyId: string) => ({ params: { path: { studyId } } });
const ofPrompt = (studyId: string, promptId: string) => ({ params: { path: { studyId, promptId } } });

export const promptsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "prompts"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/prompts", { ...ofStudy(studyId), signal })),
  });

/** Titles alone, for a lead who grades and must not read more. */
export const promptTitles = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "prompts", "titles"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/prompts/titles", { ...ofStudy(studyId), signal })),
  });

export const promptWarnings = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "prompts", "warnings"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/prompts/warnings", { ...ofStudy(studyId), signal })),
  });

export const kindsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "kinds"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/kinds", { ...ofStudy(studyId), signal })),
  });

export const readBacksOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "read-backs"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/read-backs", { ...ofStudy(studyId), signal })),
  });

/** Answers that prompts brought out of the bank, for raters to calibrate by. */
export const specimensOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "specimens"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/specimens", { ...ofStudy(studyId), signal })),
  });

export const readingKeys = { mine: ["read-backs"] as const };

export const myReadings = () =>
  queryOptions({
    queryKey: readingKeys.mine,
    queryFn: ({ signal }) => unwrap(api.GET("/api/read-backs", { signal })),
  });

export const bankKeys = { all: ["bank"] as const };

export const bank = () =>
  queryOptions({
    queryKey: bankKeys.all,
    queryFn: ({ signal }) => unwrap(api.GET("/api/bank", { signal })),
  });

export const bankPrompt = (bankPromptId: string) =>
  queryOptions({
    queryKey: [...bankKeys.all, bankPromptId],
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/bank/{bankPromptId}", { params: { path: { bankPromptId } }, signal })),
  });

export const putPrompt = (studyId: string, promptId: string, body: Schemas["WritePrompt"]) =>
  unwrap(api.PUT("/api/studies/{studyId}/prompts/{promptId}", { ...ofPrompt(studyId, promptId), body }));

export const BLANK_PROMPT: Schemas["PromptContent"] = {
  title: "",
  language: "",
  request: "",
  areas: [],
  constraints: [],
  startingFiles: [],
  keyPoints: [],
  referenceAnswer: "",
  followUps: [],
};

export function useAddPrompt(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["AddPrompt"]) =>
      unwrap(api.POST("/api/studies/{studyId}/prompts", { ...ofStudy(studyId), body })),
    onSuccess: changed,
  });
}

export function useRemovePrompt(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (promptId: string) =>
      unwrap(api.DELETE("/api/studies/{studyId}/prompts/{promptId}", ofPrompt(studyId, promptId))),
    onSuccess: changed,
  });
}

export function useAddVariant(studyId: string, promptId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (wording: Schemas["AddVariant"]["wording"]) =>
      unwrap(
        api.POST("/api/studies/{studyId}/prompts/{promptId}/variants", {
          ...ofPrompt(studyId, promptId),
          body: { wording },
        }),
      ),
    onSuccess: changed,
  });
}

export function useSetAside(studyId: string, promptId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (reason: string) =>
      unwrap(
        api.PUT("/api/studies/{studyId}/prompts/{promptId}/fault", {
          ...ofPrompt(studyId, promptId),
          body: { reason },
        }),
      ),
    onSuccess: changed,
  });
}

export function useTakeUp(studyId: string, promptId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (reason: string) =>
      unwrap(
        api.POST("/api/studies/{studyId}/prompts/{promptId}/fault/take-back", {
          ...ofPrompt(studyId, promptId),
          body: { reason },
        }),
      ),
    onSuccess: changed,
  });
}

export function useAddKind(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (name: string) =>
      unwrap(api.POST("/api/studies/{studyId}/kinds", { ...ofStudy(studyId), body: { name } })),
    onSuccess: changed,
  });
}

export function useAskReader(studyId: string, promptId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (readerId: string) =>
      unwrap(
        api.POST("/api/studies/{studyId}/prompts/{promptId}/read-backs", {
          ...ofPrompt(studyId, promptId),
          body: { readerId },
        }),
      ),
    onSuccess: changed,
  });
}

export function useJudgeReading(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: ({ readBackId, verdict }: { readBackId: string; verdict: "UNDERSTOOD" | "UNCLEAR" }) =>
      unwrap(
        api.PUT("/api/studies/{studyId}/read-backs/{readBackId}/verdict", {
          params: { path: { studyId, readBackId } },
          body: { verdict },
        }),
      ),
    onSuccess: changed,
  });
}

export function useSayBack() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ readBackId, answer }: { readBackId: string; answer: string }) =>
      unwrap(api.PUT("/api/read-backs/{readBackId}", { params: { path: { readBackId } }, body: { answer } })),
    onSuccess: () => client.invalidateQueries({ queryKey: readingKeys.mine }),
  });
}

export function useKeep(studyId: string, promptId: string) {
  const client = useQueryClient();
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: () => unwrap(api.POST("/api/studies/{studyId}/prompts/{promptId}/keep", ofPrompt(studyId, promptId))),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: bankKeys.all });
      await changed();
    },
  });
}

export function useTakeFromBank(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["TakeFromBank"]) =>
      unwrap(api.POST("/api/studies/{studyId}/prompts/from-bank", { ...ofStudy(studyId), body })),
    onSuccess: changed,
  });
}

export const readZip = (studyId: string, file: File) =>
  upload<Schemas["TakenCode"]>(`/api/studies/${studyId}/starting-code/zip`, file);

export function useListGit(studyId: string) {
  return useMutation({
    mutationFn: (body: Schemas["GitPlace"]) =>
      unwrap(api.POST("/api/studies/{studyId}/starting-code/git/listing", { ...ofStudy(studyId), body })),
  });
}

export function useReadGit(studyId: string) {
  return useMutation({
    mutationFn: (body: Schemas["GitFiles"]) =>
      unwrap(api.POST("/api/studies/{studyId}/starting-code/git", { ...ofStudy(studyId), body })),
  });
}

/** What candidates answered to it, in full. */
export const answersOfPrompt = (studyId: string, promptId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "answers", promptId),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/prompts/{promptId}/answers", {
          params: { path: { studyId, promptId } },
          signal,
        }),
      ),
  });
