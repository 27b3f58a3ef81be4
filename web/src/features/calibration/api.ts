import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { sheetKeys } from "../desk";
import { bankKeys } from "../prompt";
import { studyKeys } from "../study";

/** How often a talk is looked at for what others say, in milliseconds. */
const LISTEN_EVERY = 8_000;

/** A calibration of a study. */
export type Which = { studyId: string; number: number };

const keys = {
  mine: ["calibrations"] as const,
  one: ({ studyId, number }: Which) => studyKeys.part(studyId, "calibrations", String(number)),
};

const at = ({ studyId, number }: Which, place: number) => ({ params: { path: { studyId, number, place } } });

export const myCalibrations = () =>
  queryOptions({
    queryKey: keys.mine,
    queryFn: ({ signal }) => unwrap(api.GET("/api/calibrations", { signal })),
    refetchInterval: 30_000,
  });

export const calibrationsOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "calibrations"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/calibrations", { params: { path: { studyId } }, signal })),
    refetchInterval: 30_000,
  });

export const oneCalibration = (which: Which) =>
  queryOptions({
    queryKey: keys.one(which),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/calibrations/{number}", { params: { path: which }, signal })),
    refetchInterval: LISTEN_EVERY,
  });

export const calibratedAnswer = (which: Which, place: number) =>
  queryOptions({
    queryKey: [...keys.one(which), place],
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/calibrations/{number}/answers/{place}", { ...at(which, place), signal })),
    refetchInterval: LISTEN_EVERY,
  });

/** Answers that raters calibrate by do not change, so their code is fetched once. */
export const codeOfCalibrated = (which: Which, place: number) => ({
  queryKey: [...keys.one(which), place, "code"],
  queryFn: () => unwrap(api.GET("/api/studies/{studyId}/calibrations/{number}/answers/{place}/code", at(which, place))),
});

function useChanged(studyId: string) {
  const client = useQueryClient();
  return async () => {
    await client.invalidateQueries({ queryKey: keys.mine });
    await client.invalidateQueries({ queryKey: sheetKeys.all });
    await client.invalidateQueries({ queryKey: studyKeys.one(studyId) });
  };
}

export function useBegin(studyId: string) {
  const onSuccess = useChanged(studyId);
  return useMutation({
    mutationFn: (promptIds: string[]) =>
      unwrap(api.POST("/api/studies/{studyId}/calibrations", { params: { path: { studyId } }, body: { promptIds } })),
    onSuccess,
  });
}

export function useGradeAgain(which: Which) {
  const onSuccess = useChanged(which.studyId);
  return useMutation({
    mutationFn: () =>
      unwrap(api.POST("/api/studies/{studyId}/calibrations/{number}/again", { params: { path: which } })),
    onSuccess,
  });
}

/** Keeps the prompts in the bank, with the answers that have a level. */
export function useKeepInBank(which: Which) {
  const client = useQueryClient();
  const changed = useChanged(which.studyId);
  return useMutation({
    mutationFn: () =>
      unwrap(api.POST("/api/studies/{studyId}/calibrations/{number}/keep", { params: { path: which } })),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: bankKeys.all });
      await changed();
    },
  });
}

export function useGoOnWithout(which: Which) {
  const onSuccess = useChanged(which.studyId);
  return useMutation({
    mutationFn: (body: Schemas["GoOnWithout"]) =>
      unwrap(api.POST("/api/studies/{studyId}/calibrations/{number}/without", { params: { path: which }, body })),
    onSuccess,
  });
}

/** What came back is the answer as it is now; the table of all is asked for anew. */
function useAnswerChanged(which: Which, place: number) {
  const client = useQueryClient();
  return async (answer: Schemas["AnswerTalk"]) => {
    client.setQueryData(calibratedAnswer(which, place).queryKey, answer);
    await client.invalidateQueries({ queryKey: keys.one(which), exact: true });
  };
}

export function useSayOfAnswer(which: Which, place: number) {
  const onSuccess = useAnswerChanged(which, place);
  return useMutation({
    mutationFn: (body: Schemas["SayOfAnswer"]) =>
      unwrap(
        api.POST("/api/studies/{studyId}/calibrations/{number}/answers/{place}/words", { ...at(which, place), body }),
      ),
    onSuccess,
  });
}

export type Source = Schemas["AgreedView"]["source"];

/** A level at which an answer should stand; without one, what was said is taken back. */
export type Agreement = { criterion: string; source: Source; to?: Schemas["Agree"] };

export function useAgree(which: Which, place: number) {
  const onSuccess = useAnswerChanged(which, place);
  return useMutation({
    mutationFn: ({ criterion, source, to }: Agreement) => {
      const params = { path: { ...which, place, criterion, source } };
      const path = "/api/studies/{studyId}/calibrations/{number}/answers/{place}/levels/{criterion}/{source}";
      return unwrap(to === undefined ? api.DELETE(path, { params }) : api.PUT(path, { params, body: to }));
    },
    onSuccess,
  });
}
