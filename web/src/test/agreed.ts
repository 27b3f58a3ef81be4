import { screen, within } from "@testing-library/react";
import type { Schemas } from "../api/client";

type Figure = Schemas["Figure"];

export const figure = (value: number, low: number, high: number): Figure => ({ value, low, high, level: 0.95 });
export const noFigure = (undefinedReason: string): Figure => ({ undefinedReason });

export const FIGURES: Schemas["AgreementFigures"] = {
  alpha: figure(0.71, 0.64, 0.78),
  ac2: figure(0.75, 0.7, 0.81),
  exact: figure(0.62, 0.58, 0.66),
  withinOne: figure(0.94, 0.91, 0.97),
  answers: 24,
  prompts: 8,
  pairs: 72,
  resampled: "PROMPTS",
  verdict: "ABOVE",
};

export const criterion = (
  criterionId: string,
  name: string,
  overall: Partial<Schemas["AgreementFigures"]> = {},
  more: Partial<Schemas["CriterionAgreement"]> = {},
): Schemas["CriterionAgreement"] => ({
  criterionId,
  name,
  weight: 0.5,
  floor: 0.6,
  highestLevel: 4,
  overall: { ...FIGURES, ...overall },
  byKind: [],
  ...more,
});

export const AGREEMENT: Schemas["AgreementReport"] = {
  revision: 7,
  sheets: 12,
  sentSheets: 11,
  resamples: 2000,
  coefficient: "ALPHA_ORDINAL",
  criteria: [criterion("right", "Correctness"), criterion("idiom", "Idiom")],
  raters: [
    { raterId: "a", name: "Åse Lund" },
    { raterId: "b", name: "Bo Grane" },
    { raterId: "c", name: "Cleo Varn" },
  ],
  pairs: [
    {
      criterionId: "right",
      firstRaterId: "b",
      secondRaterId: "a",
      answers: 21,
      quadratic: figure(0.66, 0.5, 0.8),
      linear: figure(0.58, 0.4, 0.7),
    },
    {
      criterionId: "idiom",
      firstRaterId: "b",
      secondRaterId: "a",
      answers: 21,
      quadratic: figure(0.41, 0.2, 0.6),
      linear: figure(0.33, 0.2, 0.5),
    },
  ],
  severity: [
    { raterId: "a", name: "Åse Lund", grades: 72, shareAtEnds: 0.51, severity: figure(0.42, 0.3, 0.55) },
    { raterId: "b", name: "Bo Grane", grades: 66, shareAtEnds: 0.04, severity: figure(-0.31, -0.44, -0.2) },
  ],
  selfAgreement: [],
  splits: [],
  splitCount: 0,
  setAside: [],
};

export const rowsOf = (name: string) => within(screen.getByRole("table", { name })).getAllByRole("row");
