import { keepPreviousData, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";
import { studyKeys } from "../study";

type Which = { studyId: string; number: number };

const ofMemo = (which: Which) => ({ params: { path: which } });

export const memosOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "memos"),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/memos", { params: { path: { studyId } }, signal })),
  });

export const oneMemo = (which: Which) =>
  queryOptions({
    queryKey: studyKeys.part(which.studyId, "memos", String(which.number)),
    queryFn: ({ signal }) => unwrap(api.GET("/api/studies/{studyId}/memos/{number}", { ...ofMemo(which), signal })),
  });

/** A window of every answer's grades; what was there before stays until it has come. */
export const appendixOf = (which: Which, from: number) =>
  queryOptions({
    queryKey: studyKeys.part(which.studyId, "memos", `${which.number} appendix ${from}`),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/studies/{studyId}/memos/{number}/appendix", {
          params: { path: which, query: { from } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

export const putMemo = (which: Which, body: Schemas["WriteMemo"]) =>
  unwrap(api.PUT("/api/studies/{studyId}/memos/{number}", { ...ofMemo(which), body }));

/** All that is known of a study's memos is asked for again. */
export function useMemosChanged(studyId: string) {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: studyKeys.part(studyId, "memos") });
}

export function useBeginMemo(studyId: string) {
  const changed = useMemosChanged(studyId);
  return useMutation({
    mutationFn: (change: string) =>
      unwrap(api.POST("/api/studies/{studyId}/memos", { params: { path: { studyId } }, body: { change } })),
    onSuccess: changed,
  });
}

export function useDropMemo(which: Which) {
  const changed = useMemosChanged(which.studyId);
  return useMutation({
    mutationFn: () => unwrap(api.DELETE("/api/studies/{studyId}/memos/{number}", ofMemo(which))),
    onSuccess: changed,
  });
}

export function useSignMemo(which: Which) {
  const changed = useMemosChanged(which.studyId);
  return useMutation({
    mutationFn: (body: Schemas["SignMemo"]) =>
      unwrap(api.POST("/api/studies/{studyId}/memos/{number}/signature", { ...ofMemo(which), body })),
    // What was read may have changed meanwhile; then it is there to be read again.
    onSettled: changed,
  });
}

export function useDissent(which: Which) {
  const changed = useMemosChanged(which.studyId);
  return useMutation({
    mutationFn: (words: string) =>
      unwrap(api.PUT("/api/studies/{studyId}/memos/{number}/dissent", { ...ofMemo(which), body: { words } })),
    onSuccess: changed,
  });
}

export function useAddEntry(which: Which) {
  const changed = useMemosChanged(which.studyId);
  return useMutation({
    mutationFn: (body: Schemas["AddEntry"]) =>
      unwrap(api.POST("/api/studies/{studyId}/memos/{number}/entries", { ...ofMemo(which), body })),
    onSuccess: changed,
  });
}

export function useMakeLink(which: Which) {
  const changed = useMemosChanged(which.studyId);
  return useMutation({
    mutationFn: (days: number) =>
      unwrap(api.POST("/api/studies/{studyId}/memos/{number}/links", { ...ofMemo(which), body: { days } })),
    onSuccess: changed,
  });
}

export function useWithdrawLink({ studyId, number }: Which) {
  const changed = useMemosChanged(studyId);
  return useMutation({
    mutationFn: (linkId: string) =>
      unwrap(
        api.DELETE("/api/studies/{studyId}/memos/{number}/links/{linkId}", {
          params: { path: { studyId, number, linkId } },
        }),
      ),
    onSuccess: changed,
  });
}

/** Adds words to a part of the memo that is being written, begun if there is none; tells which version it is. */
export async function addToMemo(
  studyId: string,
  section: Schemas["MemoWords"]["section"],
  words: string,
): Promise<number> {
  const { versions } = await unwrap(api.GET("/api/studies/{studyId}/memos", { params: { path: { studyId } } }));
  const open = versions.find((v) => v.signed === undefined);
  const memo =
    open === undefined
      ? await unwrap(
          api.POST("/api/studies/{studyId}/memos", {
            params: { path: { studyId } },
            body: { change: versions.length === 0 ? "" : "What was explored is noted." },
          }),
        )
      : await unwrap(api.GET("/api/studies/{studyId}/memos/{number}", ofMemo({ studyId, number: open.number })));
  const before = memo.words.find((w) => w.section === section)?.text ?? "";
  const others = memo.words.filter((w) => w.section !== section);
  await putMemo(
    { studyId, number: memo.head.number },
    {
      version: memo.version,
      names: memo.names,
      change: memo.head.change,
      words: [...others, { section, text: before === "" ? words : `${before}\n\n${words}` }],
    },
  );
  return memo.head.number;
}

export type { Which };
