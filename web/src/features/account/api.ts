import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useOutletContext } from "react-router";
import { at } from "../../api/base";
import { actFor, api, type Schemas, TOKEN, tokenNow, unwrap } from "../../api/client";
import type { ThemeChoice } from "../../ui/theme";
import { askAgain, forgetCopies, keepCopy, orCopy } from "../../api/copies";

export const sessionKeys = { current: ["session"] as const };

const COPY = "session";

/** Copies are kept for whoever is signed in, and for nobody else. */
async function keepOnlyFor(session: Schemas["SessionView"]): Promise<void> {
  await (session.account ? keepCopy(COPY, session) : forgetCopies());
}

const currentSession = () =>
  queryOptions({
    queryKey: sessionKeys.current,
    queryFn: async ({ signal }) => {
      const session = await orCopy(COPY, unwrap(api.GET("/api/session", { signal })));
      await keepOnlyFor(session);
      return session;
    },
    staleTime: 60_000,
    refetchInterval: askAgain(COPY),
  });

export function useSession() {
  return useQuery(currentSession());
}

/** Who is signed in, on pages behind the sign-in. */
export function useAccount() {
  return useOutletContext<Schemas["AccountView"]>();
}

export const demoSignIns = () =>
  queryOptions({
    queryKey: ["demo-sign-ins"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/demo/sign-ins", { signal })),
    staleTime: Infinity,
    retry: false,
  });

/** Everything fetched for one person goes when another comes. */
function useEnter() {
  const client = useQueryClient();
  return (session: Schemas["SessionView"]) => {
    actFor(session.account?.id);
    client.removeQueries({ predicate: (query) => query.queryKey[0] !== sessionKeys.current[0] });
    client.setQueryData(sessionKeys.current, session);
    void forgetCopies().then(() => keepOnlyFor(session));
  };
}

export function useSignIn() {
  const enter = useEnter();
  return useMutation({
    mutationFn: (body: Schemas["SignIn"]) => unwrap(api.POST("/api/session", { body })),
    onSuccess: enter,
  });
}

/** Where the browser goes to sign out at a provider as well. */
const SIGN_OUT_AT = "X-Mossbank-Sign-Out-At";

export function useSignOut() {
  const enter = useEnter();
  return useMutation({
    mutationFn: async () => {
      const response = await fetch(at("/api/session"), {
        method: "DELETE",
        headers: { [TOKEN]: tokenNow() ?? "" },
      });
      if (!response.ok && response.status !== 401) {
        throw new Error("Signing out failed.");
      }
      return response.headers.get(SIGN_OUT_AT);
    },
    onSuccess: (elsewhere) => {
      enter({});
      if (elsewhere !== null) {
        location.assign(elsewhere);
      }
    },
  });
}

/** In which ways one signs in here. */
export const waysIn = () =>
  queryOptions({
    queryKey: ["ways-in"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/sign-in", { signal })),
    staleTime: Infinity,
  });

export const linkBy = (body: Schemas["UseLinkBy"]) => unwrap(api.POST("/api/links/provider", { body }));

export const ownIdentities = () =>
  queryOptions({
    queryKey: ["own-account", "identities"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/account/identities", { signal })),
  });

const byProvider = (provider: string) => ({ params: { path: { provider } } });

export const addProvider = (provider: string) =>
  unwrap(api.POST("/api/account/identities/{provider}", byProvider(provider)));

export const removeProvider = (provider: string) =>
  unwrap(api.DELETE("/api/account/identities/{provider}", byProvider(provider)));

/** Shows once more who one is, by the password. */
export const prove = (password: string) => unwrap(api.POST("/api/account/proof", { body: { password } }));

/** The same by a provider: the browser goes there, and comes back to where it was. */
export const proveBy = (provider: string) => unwrap(api.POST("/api/account/proof/{provider}", byProvider(provider)));

/** Whether mail goes out here at all. */
export const mailOn = () =>
  queryOptions({
    queryKey: ["mail-on"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/mail", { signal })),
    staleTime: Infinity,
  });

export const ownMail = () =>
  queryOptions({
    queryKey: ["own-account", "mail"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/account/mail", { signal })),
  });

export const chooseMail = (body: Schemas["ChooseMail"]) => unwrap(api.PUT("/api/account/mail", { body }));

export const forgetMail = () => unwrap(api.DELETE("/api/account/mail"));

export const confirmAddress = (body: Schemas["ConfirmAddress"]) => unwrap(api.POST("/api/links/address", { body }));

export const losePassword = (body: Schemas["LostPassword"]) => unwrap(api.POST("/api/links/lost", { body }));

export const linkOwner = (token: string) =>
  queryOptions({
    queryKey: ["link", token],
    queryFn: () => unwrap(api.POST("/api/links/inspect", { body: { token } })),
    staleTime: Infinity,
    retry: false,
  });

export function useLink() {
  const enter = useEnter();
  return useMutation({
    mutationFn: (body: Schemas["UseLink"]) => unwrap(api.POST("/api/links/use", { body })),
    onSuccess: enter,
  });
}

export const ownAccount = () =>
  queryOptions({
    queryKey: ["own-account"],
    queryFn: ({ signal }) => unwrap(api.GET("/api/account", { signal })),
  });

export const changePassword = (body: Schemas["ChangePassword"]) => unwrap(api.PUT("/api/account/password", { body }));

export const signOutOf = (handle: string) =>
  unwrap(api.DELETE("/api/account/sessions/{handle}", { params: { path: { handle } } }));

/** A look's name on the wire. */
export function themeOnWire(theme: ThemeChoice): NonNullable<Schemas["Preferences"]["theme"]> {
  return theme === "system" ? "SYSTEM" : theme === "light" ? "LIGHT" : "DARK";
}

/** And back. */
export function themeFromWire(theme: NonNullable<Schemas["Preferences"]["theme"]>): ThemeChoice {
  return theme === "SYSTEM" ? "system" : theme === "LIGHT" ? "light" : "dark";
}

/** Changes one's name or what one prefers; every page follows. */
export function useWriteOwn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["WriteOwn"]) => unwrap(api.PUT("/api/account", { body })),
    onSuccess: (own) => {
      client.setQueryData(ownAccount().queryKey, own);
      return client.invalidateQueries({ queryKey: sessionKeys.current });
    },
  });
}

export const signOutElsewhere = () => unwrap(api.DELETE("/api/account/sessions"));
