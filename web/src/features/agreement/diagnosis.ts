import { queryOptions } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { studyKeys } from "../study";

/** Where raters part, by criterion; for the lead. */
export const diagnosisOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "agreement", "diagnosis"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/agreement/diagnosis", { params: { path: { studyId } }, signal })),
  });
