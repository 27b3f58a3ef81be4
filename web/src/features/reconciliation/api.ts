import { infiniteQueryOptions, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

/** How often a talk is looked at for what others say, in milliseconds. */
const LISTEN_EVERY = 8_000;

export const splitKeys = {
  all: ["splits"] as const,
  one: (splitId: string) => [...splitKeys.all, splitId] as const,
  code: (splitId: string) => [...splitKeys.all, splitId, "code"] as const,
  look: (splitId: string) => [...splitKeys.all, splitId, "look"] as const,
};

const at = (splitId: string) => ({ params: { path: { splitId } } });

export const mySplits = () =>
  queryOptions({
    queryKey: [...splitKeys.all, "mine"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/splits", { signal })),
    refetchInterval: 60_000,
  });

/** Those of studies that ended longer ago, so many studies at a time, and only when asked for. */
export const earlierSplits = () =>
  infiniteQueryOptions({
    queryKey: [...splitKeys.all, "mine", "earlier"],
    queryFn: ({ pageParam, signal }) =>
      unwrap(api.GET("/api/splits", { params: { query: { earlier: pageParam } }, signal })),
    initialPageParam: 1,
    getNextPageParam: (page, _, number) => (page.more ? number + 1 : undefined),
    enabled: false,
  });

export const oneSplit = (splitId: string) =>
  queryOptions({
    queryKey: splitKeys.one(splitId),
    queryFn: ({ signal }) => unwrap(api.GET("/api/splits/{splitId}", { ...at(splitId), signal })),
    refetchInterval: LISTEN_EVERY,
  });

export const lookAt = (splitId: string) =>
  queryOptions({
    queryKey: splitKeys.look(splitId),
    queryFn: ({ signal }) => unwrap(api.GET("/api/splits/{splitId}/look", { ...at(splitId), signal })),
  });

/** Answers cannot change while a round is open, so their code is fetched once. */
export const codeOfSplit = (splitId: string) => ({
  queryKey: splitKeys.code(splitId),
  queryFn: () => unwrap(api.GET("/api/splits/{splitId}/code", at(splitId))),
});

export const splitsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "splits"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/splits", { params: { path: { studyId } }, signal })),
  });

export const mayLookAt = (studyId: string, splitId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "splits", splitId, "looks"),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/splits/{splitId}/looks", { params: { path: { studyId, splitId } }, signal }),
      ),
  });

/** What came back is the page as it is now; lists elsewhere are asked for anew. */
function usePageOf(splitId: string) {
  const client = useQueryClient();
  return async (page: Schemas["SplitPage"]) => {
    client.setQueryData(splitKeys.one(splitId), page);
    await client.invalidateQueries({ queryKey: [...splitKeys.all, "mine"] });
    await client.invalidateQueries({ queryKey: studyKeys.one(page.studyId) });
  };
}

export function useSay(splitId: string) {
  const onSuccess = usePageOf(splitId);
  return useMutation({
    mutationFn: (body: Schemas["Say"]) => unwrap(api.POST("/api/splits/{splitId}/words", { ...at(splitId), body })),
    onSuccess,
  });
}

export function useStand(splitId: string) {
  const onSuccess = usePageOf(splitId);
  return useMutation({
    mutationFn: (body: Schemas["Stand"]) => unwrap(api.POST("/api/splits/{splitId}/stances", { ...at(splitId), body })),
    onSuccess,
  });
}

export function useGiveLook(splitId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["GiveLook"]) => unwrap(api.PUT("/api/splits/{splitId}/look", { ...at(splitId), body })),
    onSuccess: () => client.invalidateQueries({ queryKey: splitKeys.all }),
  });
}

/** How a lead ends a talk, or lets it go on. */
export type Closing =
  | { step: "settle"; level: number; reason: string }
  | { step: "leave-open"; reason: string }
  | { step: "open-again"; reason: string };

function close(studyId: string, splitId: string, closing: Closing) {
  const params = { path: { studyId, splitId } };
  const { reason } = closing;
  switch (closing.step) {
    case "settle":
      return unwrap(
        api.POST("/api/studies/{studyId}/splits/{splitId}/settle", { params, body: { level: closing.level, reason } }),
      );
    case "leave-open":
      return unwrap(api.POST("/api/studies/{studyId}/splits/{splitId}/leave-open", { params, body: { reason } }));
    case "open-again":
      return unwrap(api.POST("/api/studies/{studyId}/splits/{splitId}/open-again", { params, body: { reason } }));
  }
}

/** Whatever came of it, the page shows how it is now: somebody else may have been first. */
function useSplitsChanged() {
  const client = useQueryClient();
  return async () => {
    await client.invalidateQueries({ queryKey: splitKeys.all });
    await client.invalidateQueries({ queryKey: studyKeys.all });
  };
}

export function useClose(studyId: string, splitId: string) {
  const onSettled = useSplitsChanged();
  return useMutation({ mutationFn: (closing: Closing) => close(studyId, splitId, closing), onSettled });
}

export function useAskLook(studyId: string, splitId: string) {
  const onSettled = useSplitsChanged();
  return useMutation({
    mutationFn: (raterId: string) =>
      unwrap(
        api.POST("/api/studies/{studyId}/splits/{splitId}/looks", {
          params: { path: { studyId, splitId } },
          body: { raterId },
        }),
      ),
    onSettled,
  });
}

export function useTakeUp(studyId: string) {
  const onSettled = useSplitsChanged();
  return useMutation({
    mutationFn: (splits: Schemas["SplitAt"][]) =>
      unwrap(api.POST("/api/studies/{studyId}/splits", { params: { path: { studyId } }, body: { splits } })),
    onSettled,
  });
}

export function useTakeUpWidest(studyId: string) {
  const onSettled = useSplitsChanged();
  return useMutation({
    mutationFn: (count: number) =>
      unwrap(api.POST("/api/studies/{studyId}/splits/widest", { params: { path: { studyId } }, body: { count } })),
    onSettled,
  });
}
