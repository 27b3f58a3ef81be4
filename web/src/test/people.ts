import type { Schemas } from "../api/client";

export const PEOPLE: Schemas["PersonView"][] = [
  {
    accountId: "p1",
    name: "Mira Voss",
    signInName: "mira",
    role: "LEAD",
    grades: false,
    hasPassword: true,
    accepted: true,
    declared: true,
    left: false,
  },
  {
    accountId: "p2",
    name: "Åse Lund",
    signInName: "ase",
    role: "RATER",
    grades: true,
    hasPassword: false,
    accepted: true,
    declared: false,
    left: false,
  },
];

export const TERMS: Schemas["RuleTerms"] = {
  coefficient: "ALPHA_ORDINAL",
  agreementFloor: 0.6,
  floorOn: "ESTIMATE",
  margin: 5,
  minimumRaters: 2,
  tieBreak: "NONE",
  strictOnMasking: false,
  strictOnSplits: false,
  byKind: false,
  looks: 1,
  failedAnswers: "LOWEST",
};

export const NOT_FOUND = { type: "https://mossbank.example/problems/not-found", title: "Not found", status: 404 };

export const refusal = (detail: string, more: object = {}) => ({
  status: 400,
  body: { type: "https://mossbank.example/problems/invalid", title: "Not valid", status: 400, detail, ...more },
});
