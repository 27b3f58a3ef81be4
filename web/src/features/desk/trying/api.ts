import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { at } from "../../../api/base";
import { api, type Schemas, unwrap } from "../../../api/client";
import { sheetKeys } from "../api";

/** Fetched each time it is opened: whoever looks is shown what there is by then, and that they looked is kept. */
export const trialsOnSheet = (sheetId: string) =>
  queryOptions({
    queryKey: [...sheetKeys.one(sheetId), "trials"],
    refetchOnMount: "always",
    queryFn: ({ signal }) => unwrap(api.GET("/api/sheets/{sheetId}/trials", { params: { path: { sheetId } }, signal })),
  });

export const inputsOnSheet = (sheetId: string) =>
  queryOptions({
    queryKey: [...sheetKeys.one(sheetId), "inputs"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/sheets/{sheetId}/inputs", { params: { path: { sheetId } }, signal })),
  });

/** A picture of an answer's page. */
export const pictureAt =
  (sheetId: string, answerId: string) =>
  (place: number): string =>
    at(`/api/sheets/${sheetId}/answers/${answerId}/pictures/${place}`);

/** A picture of the page of an answer as somebody repaired it. */
export const repairPictureAt =
  (sheetId: string, answerId: string, repairId: string) =>
  (place: number): string =>
    at(`/api/sheets/${sheetId}/answers/${answerId}/repairs/${repairId}/pictures/${place}`);

/** The files of an answer that may be changed. */
export const repairable = (sheetId: string, answerId: string) =>
  queryOptions({
    queryKey: [...sheetKeys.one(sheetId), "repairable", answerId],
    staleTime: Infinity,
    retry: false,
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/sheets/{sheetId}/answers/{answerId}/repairable", {
          params: { path: { sheetId, answerId } },
          signal,
        }),
      ),
  });

/** What came of a repair, item by item. */
export const resultOfRepair = (sheetId: string, answerId: string, repairId: string) =>
  queryOptions({
    queryKey: [...sheetKeys.one(sheetId), "repair", repairId],
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/sheets/{sheetId}/answers/{answerId}/repairs/{repairId}", {
          params: { path: { sheetId, answerId, repairId } },
          signal,
        }),
      ),
  });

export function useRepair(sheetId: string, answerId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (files: Schemas["ChangedFile"][]) =>
      unwrap(
        api.POST("/api/sheets/{sheetId}/answers/{answerId}/repairs", {
          params: { path: { sheetId, answerId } },
          body: { files },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: trialsOnSheet(sheetId).queryKey }),
  });
}

/** How many programs are asked at the same time. */
const AT_ONCE = 2;

type Given = Schemas["InputOnSheet"];

/** Gives an input to each answer, and shows what comes as it comes. */
export function useGiveInput(sheetId: string, answerIds: string[]) {
  const client = useQueryClient();
  const key = inputsOnSheet(sheetId).queryKey;
  const came = (inputId: string, end: Schemas["EndOnSheet"]) =>
    client.setQueryData(key, (all: Given[] | undefined) =>
      all?.map((i) => (i.id === inputId ? { ...i, ends: [...i.ends, end] } : i)),
    );
  const ask = async (inputId: string, waiting: string[]) => {
    for (let answerId = waiting.shift(); answerId !== undefined; answerId = waiting.shift()) {
      came(
        inputId,
        await unwrap(
          api.PUT("/api/sheets/{sheetId}/inputs/{inputId}/answers/{answerId}", {
            params: { path: { sheetId, inputId, answerId } },
          }),
        ),
      );
    }
  };
  return useMutation({
    mutationFn: async (body: Schemas["GiveInput"]) => {
      const given = await unwrap(api.POST("/api/sheets/{sheetId}/inputs", { params: { path: { sheetId } }, body }));
      client.setQueryData(key, (all: Given[] | undefined) => [...(all ?? []), given]);
      const waiting = [...answerIds];
      await Promise.all(Array.from({ length: AT_ONCE }, () => ask(given.id, waiting)));
    },
    onSettled: () => client.invalidateQueries({ queryKey: trialsOnSheet(sheetId).queryKey }),
  });
}
