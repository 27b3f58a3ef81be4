import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { api, type Schemas, unwrap, upload } from "../../api/client";

/** How often is asked how far an import is, in milliseconds. */
const EVERY = 700;

const keys = { one: (id: string) => ["imports", id] as const, own: ["imports"] as const };

export const isUnderWay = (job: Schemas["ImportView"]): boolean => job.state === "WAITING" || job.state === "RUNNING";

/** The import that the address names; without one, what is still under way, as after a reload or a lost connection. */
export function useImport() {
  const [parameters] = useSearchParams();
  const id = parameters.get("import");
  return useQuery({
    queryKey: id ? keys.one(id) : keys.own,
    queryFn: async (): Promise<Schemas["ImportView"] | null> => {
      if (id) {
        return unwrap(api.GET("/api/imports/{importId}", { params: { path: { importId: id } } }));
      }
      const own = await unwrap(api.GET("/api/imports"));
      return own.find(isUnderWay) ?? null;
    },
    refetchInterval: (query) => (query.state.data && isUnderWay(query.state.data) ? EVERY : false),
  });
}

export function useBegin() {
  const client = useQueryClient();
  const [, setParameters] = useSearchParams();
  return useMutation({
    mutationFn: ({ file, again }: { file: File; again: boolean }) =>
      upload<Schemas["ImportView"]>(`/api/imports?again=${String(again)}`, file),
    onSuccess: (begun) => {
      client.setQueryData(keys.one(begun.id), begun);
      setParameters({ import: begun.id }, { replace: true });
    },
  });
}

export function useGiveUp() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => unwrap(api.DELETE("/api/imports/{importId}", { params: { path: { importId: id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.own }),
  });
}
