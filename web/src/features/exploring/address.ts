import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { withUse, addressedUse } from "../cost";

/** What may be left out, by the name that it has in the address. */
export type Part = "rater" | "prompt" | "kind";

/** What is asked about, kept in the address: weights by criterion's key, the margin, and ids of what is left out. */
export type Explored = {
  weights: Record<string, number>;
  margin?: number;
  without: Record<Part, string[]>;
  /** How the team would use it: it moves what breaks ties by cost. */
  use?: Schemas["TeamUse"];
};

const numberOf = (text: string | null, most: number): number | undefined => {
  const value = text === null || text.trim() === "" ? NaN : Number(text);
  return value >= 0 && value <= most ? value : undefined;
};

const MOST_WEIGHT = 1000;
const MOST_MARGIN = 100;

function exploredOf(address: URLSearchParams): Explored {
  const weights: Record<string, number> = {};
  for (const [name, value] of address) {
    const weight = name.startsWith("weight.") ? numberOf(value, MOST_WEIGHT) : undefined;
    if (weight !== undefined) {
      weights[name.slice("weight.".length)] = weight;
    }
  }
  const margin = numberOf(address.get("margin"), MOST_MARGIN);
  const use = addressedUse(address);
  return {
    weights,
    ...(margin !== undefined && { margin }),
    without: {
      rater: address.getAll("rater"),
      prompt: address.getAll("prompt"),
      kind: address.getAll("kind"),
    },
    ...(use !== undefined && { use }),
  };
}

export function useExplored() {
  const [address, setAddress] = useSearchParams();
  const change = (turn: (next: URLSearchParams) => void) => {
    const next = new URLSearchParams(address);
    turn(next);
    setAddress(next, { replace: true, preventScrollReset: true });
  };
  return {
    explored: exploredOf(address),
    untouched: address.size === 0,
    /** A weight that is the rule's again leaves the address. */
    weigh: (key: string, weight: number, own: number) =>
      change((next) => (weight === own ? next.delete(`weight.${key}`) : next.set(`weight.${key}`, String(weight)))),
    setMargin: (margin: number, own: number) =>
      change((next) => (margin === own ? next.delete("margin") : next.set("margin", String(margin)))),
    setUse: (use: Schemas["TeamUse"] | undefined) =>
      setAddress(withUse(address, use), { replace: true, preventScrollReset: true }),
    leaveOut: (part: Part, id: string) => change((next) => next.append(part, id)),
    takeBack: (part: Part, id: string) => change((next) => next.delete(part, id)),
    startAgain: () => setAddress(new URLSearchParams(), { replace: true, preventScrollReset: true }),
  };
}

/** What of a rule is turned. */
export type TurnedRule = {
  terms: Pick<Schemas["RuleTerms"], "margin">;
  weights: Pick<Schemas["WeightView"], "criterionId" | "key" | "name" | "weight">[];
};

/** The same as the server is asked. */
export function askedOf({ weights, margin, without, use }: Explored, rule: TurnedRule): Schemas["AskWhatIf"] {
  return {
    weights: rule.weights.flatMap((w) => {
      const weight = weights[w.key];
      return weight === undefined ? [] : [{ criterionId: w.criterionId, weight }];
    }),
    margin: margin ?? rule.terms.margin,
    withoutRaters: without.rater,
    withoutPrompts: without.prompt,
    withoutKinds: without.kind,
    ...(use !== undefined && { use }),
  };
}
