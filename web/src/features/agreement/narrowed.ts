import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { studyKeys } from "../study";
import { type Filter, twoLevels } from "./useFilter";

/** Levels that two raters must lie apart to make a split; where two levels are looked at, answers below that are listed too. */
export const LEAST_APART = 2;

/** What parts raters on one criterion, narrowed down; what was there before stays until it has come. For the lead. */
export const narrowedOf = (studyId: string, criterionId: string, { kind, prompt, rater, levels }: Filter) =>
  queryOptions({
    queryKey: studyKeys.part(
      studyId,
      "agreement",
      "narrowed",
      criterionId,
      JSON.stringify({ kind, prompt, rater, levels }),
    ),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/agreement/narrowed", {
          params: {
            path: { studyId },
            query: {
              criterionId,
              ...(kind === undefined ? {} : { kindId: kind }),
              ...(prompt === undefined ? {} : { promptId: prompt }),
              ...(rater === undefined ? {} : { raterId: rater }),
              ...twoLevels({ levels: levels ?? "" }),
            },
          },
          signal,
        }),
      ),
  });
