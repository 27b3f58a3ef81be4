import type { Schemas } from "../../api/client";

type Content = Schemas["CandidateContent"];

export const SIGNS: Record<Schemas["Consideration"]["sign"], string> = {
  FOR: "for it",
  AGAINST: "against it",
  RULES_OUT: "rules it out",
};

type Decider = NonNullable<Schemas["Consideration"]["about"]>;

/** What often decides, and is asked of all candidates. */
export const DECIDERS: Record<Decider, string> = {
  PRIVACY: "privacy",
  REGION: "where code is sent",
  LICENCE: "licence",
  CAPS: "caps",
  CONTEXT: "context",
  INTEGRATION: "integration",
};

export const DECIDERS_IN_ORDER: Decider[] = ["PRIVACY", "REGION", "LICENCE", "CAPS", "CONTEXT", "INTEGRATION"];

/** All settings in one line. */
export function settingsLine(content: Content): string {
  return content.settings.map((s) => (s.name === "settings" ? s.value : `${s.name} ${s.value}`)).join(", ");
}

/** What it costs, in one line; what is not known is left out. */
export function priceLine({ price }: Content): string {
  const currency = price.currency ?? "";
  return [
    price.inputPerMillion !== undefined && `${price.inputPerMillion} ${currency} a million tokens in`,
    price.outputPerMillion !== undefined && `${price.outputPerMillion} ${currency} out`,
    price.monthly !== undefined && `${price.monthly} ${currency} a month`,
    price.cap !== undefined &&
      `at most ${price.cap.amount} ${price.cap.unit.toLowerCase()} a ${price.cap.period.toLowerCase()}`,
    price.caps,
  ]
    .filter(Boolean)
    .join(", ");
}
