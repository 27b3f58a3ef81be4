import { queryOptions } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

/** What the rule would say otherwise, of grades at one revision. */
export const whatIfOf = (studyId: string, revision: number, body: Schemas["AskWhatIf"]) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "recommendation", JSON.stringify(["what-if", revision, body])),
    queryFn: ({ signal }) =>
      unwrap(
        api.POST("/api/studies/{studyId}/recommendation/what-if", { params: { path: { studyId } }, body, signal }),
      ),
    staleTime: Infinity,
  });
