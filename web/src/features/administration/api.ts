import { infiniteQueryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../../api/client";

export type Account = Schemas["AccountView"];

const KEY = ["accounts"] as const;

/** Accounts whose name or sign-in name has this in it, page by page. */
export const accountsWith = (part: string) =>
  infiniteQueryOptions({
    queryKey: [...KEY, part],
    queryFn: ({ pageParam, signal }) =>
      unwrap(api.GET("/api/accounts", { params: { query: { part, after: pageParam } }, signal })),
    initialPageParam: "",
    getNextPageParam: (page) => page.next,
  });

function useChange<Asked, Told>(mutationFn: (asked: Asked) => Promise<Told>) {
  const client = useQueryClient();
  return useMutation({ mutationFn, onSuccess: () => client.invalidateQueries({ queryKey: KEY }) });
}

const of = (account: Account) => ({ params: { path: { accountId: account.id } } });

export const useMakeAccount = () =>
  useChange((body: Schemas["MakeAccount"]) => unwrap(api.POST("/api/accounts", { body })));

export const useSetRights = () =>
  useChange(({ account, rights }: { account: Account; rights: Schemas["SetRights"] }) =>
    unwrap(api.PUT("/api/accounts/{accountId}/rights", { ...of(account), body: rights })),
  );

export const useDeactivate = () =>
  useChange((account: Account) => unwrap(api.POST("/api/accounts/{accountId}/deactivate", of(account))));

export const useReactivate = () =>
  useChange((account: Account) => unwrap(api.POST("/api/accounts/{accountId}/reactivate", of(account))));

export const useMakeLink = () =>
  useChange((account: Account) => unwrap(api.POST("/api/accounts/{accountId}/link", of(account))));
