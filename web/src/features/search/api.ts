import { infiniteQueryOptions, keepPreviousData } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { studyKeys } from "../study";

/** Where words stand in a study, page by page; nothing is asked while there are none. */
export const foundIn = (studyId: string, words: string) =>
  infiniteQueryOptions({
    queryKey: studyKeys.part(studyId, "search", words),
    queryFn: ({ pageParam, signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/search", {
          params: { path: { studyId }, query: { words, from: pageParam } },
          signal,
        }),
      ),
    enabled: words !== "",
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
