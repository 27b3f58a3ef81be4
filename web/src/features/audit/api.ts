import { infiniteQueryOptions } from "@tanstack/react-query";
import { at } from "../../api/base";
import { api, type Schemas, unwrap } from "../../api/client";

export type AuditEvent = Schemas["AuditEventView"];
export type AuditSort = AuditEvent["sort"];
export type AuditFilter = { who: string; sort: AuditSort | "" };

/** Every line's number is higher. */
const NEWEST = 0;

function queryOf(filter: AuditFilter, before: number) {
  return {
    ...(filter.who.trim() !== "" && { who: filter.who.trim() }),
    ...(filter.sort !== "" && { sort: filter.sort }),
    ...(before !== NEWEST && { before }),
  };
}

/** What was done in a study, or, without one, anywhere; newest first, page by page. */
export const auditEvents = (studyId: string | undefined, filter: AuditFilter) =>
  infiniteQueryOptions({
    queryKey: studyId === undefined ? ["audit-events", filter] : ["studies", studyId, "audit-events", filter],
    queryFn: ({ pageParam, signal }) => {
      const query = queryOf(filter, pageParam);
      return studyId === undefined
        ? unwrap(api.GET("/api/audit-events", { params: { query }, signal }))
        : unwrap(api.GET("/api/studies/{studyId}/audit-events", { params: { path: { studyId }, query }, signal }));
    },
    initialPageParam: NEWEST,
    getNextPageParam: (page) => page.next,
  });

/** Where the same comes as JSON Lines, whole. */
export function linesAddress(studyId: string | undefined, filter: AuditFilter): string {
  const asked = Object.entries(queryOf(filter, NEWEST)).map(([name, value]) => [name, String(value)]);
  const query = new URLSearchParams(asked).toString();
  const path = at(studyId === undefined ? "/api/audit-events/lines" : `/api/studies/${studyId}/audit-events/lines`);
  return query === "" ? path : `${path}?${query}`;
}
