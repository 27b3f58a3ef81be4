import { queryOptions } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { studyKeys } from "../study";

export const traitsOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "traits"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation/traits", { params: { path: { studyId } }, signal })),
  });
