import { infiniteQueryOptions, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { ACTING, ANSWER_WITHIN, api, type Schemas, unwrap } from "../../api/client";
import { askAgain, keptCopy, orCopy } from "../../api/copies";
import { studyKeys } from "../study";
import type { Change } from "./outbox";

export const sheetKeys = {
  all: ["sheets"] as const,
  mine: () => [...sheetKeys.all, "mine"] as const,
  one: (sheetId: string) => [...sheetKeys.all, "one", sheetId] as const,
  code: (sheetId: string, answerId: string) => [...sheetKeys.all, "code", sheetId, answerId] as const,
  comparison: (sheetId: string, first: string, second: string) =>
    [...sheetKeys.all, "comparison", sheetId, first, second] as const,
};

/** The name of the copy of a sheet. */
export const copyOfSheet = (sheetId: string) => `sheets/${sheetId}`;

export const mySheets = () =>
  queryOptions({
    queryKey: sheetKeys.mine(),
    queryFn: ({ signal }) => keptCopy("sheets", unwrap(api.GET("/api/sheets", { signal }))),
    refetchInterval: askAgain("sheets"),
  });

/** Those of studies that ended longer ago, so many studies at a time. */
export const earlierSheets = (wanted: boolean) =>
  infiniteQueryOptions({
    queryKey: [...sheetKeys.mine(), "earlier"],
    queryFn: ({ pageParam, signal }) =>
      unwrap(api.GET("/api/sheets", { params: { query: { earlier: pageParam } }, signal })),
    initialPageParam: 1,
    getNextPageParam: (page, _, number) => (page.length > 0 ? number + 1 : undefined),
    enabled: wanted,
  });

export const oneSheet = (sheetId: string) =>
  queryOptions({
    queryKey: sheetKeys.one(sheetId),
    queryFn: ({ signal }) =>
      orCopy(copyOfSheet(sheetId), unwrap(api.GET("/api/sheets/{sheetId}", { params: { path: { sheetId } }, signal }))),
    refetchInterval: askAgain(copyOfSheet(sheetId)),
  });

/** Answers cannot change while a round is open, so their code is fetched once. */
export const codeOfAnswer = (sheetId: string, answerId: string) =>
  queryOptions({
    queryKey: sheetKeys.code(sheetId, answerId),
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      keptCopy(
        `sheets/${sheetId}/code/${answerId}`,
        unwrap(
          api.GET("/api/sheets/{sheetId}/answers/{answerId}/code", { params: { path: { sheetId, answerId } }, signal }),
        ),
      ),
  });

export const comparisonOf = (sheetId: string, first: string, second: string) =>
  queryOptions({
    queryKey: sheetKeys.comparison(sheetId, first, second),
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/sheets/{sheetId}/comparison", {
          params: { path: { sheetId }, query: { first, second } },
          signal,
        }),
      ),
  });

/** Sends one change; used by the outbox, which keeps it until this answers. */
export function putChange(accountId: string, sheetId: string, change: Change): Promise<Schemas["Saved"]> {
  const { answerId, changeId, baseRevision } = change;
  // Whoever is signed in by now: what waits is one person's, and nobody else's server may judge it.
  const how = { headers: { [ACTING]: accountId }, signal: AbortSignal.timeout(ANSWER_WITHIN) };
  const path = { sheetId, answerId };
  const made = { changeId, baseRevision };
  switch (change.kind) {
    case "grade":
      return unwrap(
        api.PUT("/api/sheets/{sheetId}/answers/{answerId}/grades/{criterionId}", {
          ...how,
          params: { path: { ...path, criterionId: change.criterionId } },
          body: { ...made, ...change.mark },
        }),
      );
    case "coverage":
      return unwrap(
        api.PUT("/api/sheets/{sheetId}/answers/{answerId}/coverage/{point}", {
          ...how,
          params: { path: { ...path, point: change.point } },
          body: { ...made, ...(change.verdict && { verdict: change.verdict }) },
        }),
      );
    case "remark":
      return unwrap(
        api.PUT("/api/sheets/{sheetId}/answers/{answerId}/remarks/{remarkId}", {
          ...how,
          params: { path: { ...path, remarkId: change.remarkId } },
          body: { ...made, ...(change.remark && { remark: change.remark }) },
        }),
      );
    default:
      return putOfAnswer(change, { ...how, params: { path } }, made);
  }
}

type OfAnswer = Exclude<Change, { kind: "grade" | "coverage" | "remark" }>;
type How = {
  headers: Record<string, string>;
  signal: AbortSignal;
  params: { path: { sheetId: string; answerId: string } };
};
type Made = { changeId: string; baseRevision: number };

/** What is said of an answer as a whole. */
function putOfAnswer(change: OfAnswer, how: How, made: Made): Promise<Schemas["Saved"]> {
  switch (change.kind) {
    case "reason":
      return unwrap(
        api.PUT("/api/sheets/{sheetId}/answers/{answerId}/reason", {
          ...how,
          body: { ...made, text: change.text },
        }),
      );
    case "works":
      return unwrap(
        api.PUT("/api/sheets/{sheetId}/answers/{answerId}/works", {
          ...how,
          body: { ...made, ...(change.works && { works: change.works }), ...(change.why && { why: change.why }) },
        }),
      );
    case "preference":
      return unwrap(
        api.PUT("/api/sheets/{sheetId}/answers/{answerId}/preference", {
          ...how,
          body: { ...made, ...(change.place !== undefined && { place: change.place }) },
        }),
      );
    case "guess":
      return unwrap(
        api.PUT("/api/sheets/{sheetId}/answers/{answerId}/guess", {
          ...how,
          body: { ...made, noIdea: change.noIdea, ...(change.choice !== undefined && { choice: change.choice }) },
        }),
      );
  }
}

/** Also when the page is being left. */
export const tellTime = (sheetId: string, body: Schemas["TellTime"]) =>
  unwrap(api.PUT("/api/sheets/{sheetId}/time", { params: { path: { sheetId } }, body, keepalive: true }));

export function useSend(sheetId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(api.POST("/api/sheets/{sheetId}/send", { params: { path: { sheetId } } })),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: sheetKeys.mine() });
      await client.invalidateQueries({ queryKey: sheetKeys.one(sheetId) });
      await client.invalidateQueries({ queryKey: studyKeys.all });
    },
  });
}

export function useTakeBack(sheetId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(api.POST("/api/sheets/{sheetId}/take-back", { params: { path: { sheetId } } })),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: sheetKeys.mine() });
      await client.invalidateQueries({ queryKey: sheetKeys.one(sheetId) });
    },
  });
}

const reminderKeys = ["reminders"] as const;

export const myReminders = () =>
  queryOptions({
    queryKey: reminderKeys,
    queryFn: ({ signal }) => unwrap(api.GET("/api/reminders", { signal })),
  });

export function usePutAway() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (reminderId: string) =>
      unwrap(api.POST("/api/reminders/{reminderId}/put-away", { params: { path: { reminderId } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: reminderKeys }),
  });
}
