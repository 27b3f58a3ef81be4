import { useOutletContext, useParams } from "react-router";
import type { Schemas } from "../../api/client";

/** The study in the address. */
export function useStudyId(): string {
  return useParams()["studyId"] ?? "";
}

/** The study around the page, inside its layout. */
export function useStudy(): Schemas["StudySummary"] {
  return useOutletContext<Schemas["StudySummary"]>();
}
