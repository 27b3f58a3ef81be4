import {
  infiniteQueryOptions,
  keepPreviousData,
  queryOptions,
  useMutation,
  useQueryClient,
} from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { askAgain, keptCopy } from "../../api/copies";

export const studyKeys = {
  all: ["studies"] as const,
  one: (studyId: string) => [...studyKeys.all, studyId] as const,
  part: (studyId: string, part: string, ...more: string[]) => [...studyKeys.one(studyId), part, ...more] as const,
};

const ofStudy = (studyId: string) => ({ params: { path: { studyId } } });

export const myStudies = () =>
  queryOptions({
    queryKey: [...studyKeys.all, "mine"],
    queryFn: ({ signal }) => keptCopy("studies", unwrap(api.GET("/api/studies", { signal }))),
    refetchInterval: askAgain("studies"),
  });

export type StudyFilter = {
  part: string;
  stage: Schemas["StudyLine"]["stage"] | "";
  order: "NEWEST" | "OLDEST" | "TITLE";
  away: boolean;
};

const isFirstSeen = (filter: StudyFilter): boolean =>
  filter.part.trim() === "" && filter.stage === "" && filter.order === "NEWEST" && !filter.away;

/** One's studies to look through, page by page. */
export const studiesLike = (filter: StudyFilter) =>
  infiniteQueryOptions({
    queryKey: [...studyKeys.all, "like", filter],
    queryFn: ({ pageParam, signal }) => {
      const page = unwrap(
        api.GET("/api/my-studies", {
          params: {
            query: {
              order: filter.order,
              from: pageParam,
              ...(filter.part.trim() !== "" && { part: filter.part.trim() }),
              ...(filter.stage !== "" && { stage: filter.stage }),
              ...(filter.away && { away: true }),
            },
          },
          signal,
        }),
      );
      // What is seen first is seen without a connection as well.
      return isFirstSeen(filter) && pageParam === 0 ? keptCopy("studies-first", page) : page;
    },
    initialPageParam: 0,
    getNextPageParam: (page, pages) => {
      const seen = pages.reduce((sum, p) => sum + p.studies.length, 0);
      return page.studies.length > 0 && seen < page.total ? seen : undefined;
    },
    placeholderData: keepPreviousData,
  });

export const putAway = (studyId: string) => unwrap(api.POST("/api/studies/{studyId}/put-away", ofStudy(studyId)));

export const bringBack = (studyId: string) => unwrap(api.POST("/api/studies/{studyId}/bring-back", ofStudy(studyId)));

export const deleteStudy = (studyId: string, title: string) =>
  unwrap(api.POST("/api/studies/{studyId}/deletion", { ...ofStudy(studyId), body: { title } }));

/** Studies of one's own that stand deleted. */
export const deletedStudies = () =>
  queryOptions({
    queryKey: [...studyKeys.all, "deleted"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/deleted-studies", { signal })),
  });

export const undoDeletion = (studyId: string) =>
  unwrap(api.POST("/api/deleted-studies/{studyId}/undo", ofStudy(studyId)));

export const copyStudy = (studyId: string, body: Schemas["CopyStudy"]) =>
  unwrap(api.POST("/api/studies/{studyId}/copies", { ...ofStudy(studyId), body }));

export const oneStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.one(studyId),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}", { ...ofStudy(studyId), signal })),
  });

export const stepsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "steps"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/steps", { ...ofStudy(studyId), signal })),
    refetchInterval: 30_000,
  });

export const peopleOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "people"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/people", { ...ofStudy(studyId), signal })),
  });

export const leaversOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "leavers"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/leavers", { ...ofStudy(studyId), signal })),
  });

export const expectationIn = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "expectation"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/expectation", { ...ofStudy(studyId), signal })),
  });

/** What a change of a study makes stale: its rail and whatever part was changed. */
export function useStudyChanged(studyId: string) {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: studyKeys.one(studyId) });
}

/** Fetches the rail anew, and leaves the page's own data to the page. */
export function useStepsChanged(studyId: string) {
  const client = useQueryClient();
  return () => void client.invalidateQueries({ queryKey: studyKeys.part(studyId, "steps") });
}

export function useBeginStudy() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (title: string) => unwrap(api.POST("/api/studies", { body: { title } })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }),
  });
}

export function useDeclare(studyId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["Declare"]) =>
      unwrap(api.PUT("/api/studies/{studyId}/expectation", { ...ofStudy(studyId), body })),
    onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.one(studyId) }),
  });
}

export function useAddRater(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (body: Schemas["AddRater"]) =>
      unwrap(api.POST("/api/studies/{studyId}/raters", { ...ofStudy(studyId), body })),
    onSuccess: changed,
  });
}

export function useRemoveRater(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (raterId: string) =>
      unwrap(api.DELETE("/api/studies/{studyId}/raters/{raterId}", { params: { path: { studyId, raterId } } })),
    onSuccess: changed,
  });
}

/** Whatever names people is made anew. */
export function useShowLeavers(studyId: string) {
  const changed = useStudyChanged(studyId);
  return useMutation({
    mutationFn: (shown: Schemas["Leavers"]["shown"]) =>
      unwrap(api.PUT("/api/studies/{studyId}/leavers", { ...ofStudy(studyId), body: { shown } })),
    onSuccess: changed,
  });
}

/** Who leads changes what everybody may see. */
function useLeadChange<Asked>(mutationFn: (asked: Asked) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({ mutationFn, onSuccess: () => client.invalidateQueries({ queryKey: studyKeys.all }) });
}

export const useLetLead = (studyId: string) =>
  useLeadChange((accountId: string) =>
    unwrap(api.POST("/api/studies/{studyId}/leads/{accountId}", { params: { path: { studyId, accountId } } })),
  );

export const useHandOver = (studyId: string) =>
  useLeadChange((accountId: string) =>
    unwrap(api.POST("/api/studies/{studyId}/hand-over/{accountId}", { params: { path: { studyId, accountId } } })),
  );

export const useStepBack = (studyId: string) =>
  useLeadChange(() => unwrap(api.POST("/api/studies/{studyId}/step-back", ofStudy(studyId))));

export const askedFor = () =>
  queryOptions({
    queryKey: ["asked-for"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/asked", { signal })),
  });

export const accept = (studyId: string) => unwrap(api.POST("/api/asked/{studyId}", ofStudy(studyId)));

export const decline = (studyId: string) => unwrap(api.DELETE("/api/asked/{studyId}", ofStudy(studyId)));
