import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { waysIn } from "./api";

type Provider = Schemas["ProviderView"];

/** Why a provider's answer let nobody in, in words that say what can be done about it. */
const REFUSALS: Record<string, string> = {
  "not-invited": "You are not expected here yet. Ask the lead of your study, or the administrator, for a link.",
  "known-already": "At this provider you are somebody else here already. Sign in as them, or ask the administrator.",
  "link-spent": "The link was used already or has expired. The lead can make a new one.",
  "somebody-else": "At that provider you are somebody else. Show who you are as the person who is signed in here.",
  "not-asked": "The provider did not ask who you are. Try again; if it stays so, tell the administrator.",
  left: "Your account is closed. The administrator can open it again.",
  denied: "You did not let the provider tell who you are.",
  "provider-away": "The provider does not answer at this moment. Try again in a while.",
  "provider-wrong": "What the provider said could not be believed. Try again; if it stays so, tell the administrator.",
};

export const refusalOf = (code: string): string => REFUSALS[code] ?? "You could not be signed in there.";

type ProvidersProps = { children?: ReactNode; onChoose: (provider: Provider) => void; disabled?: boolean };

/** One button for each provider by which one can sign in; nothing where there is none. */
export function Providers({ children, onChoose, disabled = false }: ProvidersProps) {
  const ways = useQuery(waysIn());
  const providers = ways.data?.providers ?? [];
  return providers.length === 0 ? null : (
    <div className="grid gap-2">
      {children}
      {providers.map((provider) => (
        <Button
          key={provider.id}
          tone={ways.data?.passwords ? "quiet" : "primary"}
          disabled={disabled}
          className="justify-center"
          onClick={() => onChoose(provider)}
        >
          Sign in by {provider.name}
        </Button>
      ))}
    </div>
  );
}
