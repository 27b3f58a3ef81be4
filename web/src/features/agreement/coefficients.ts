import type { Schemas } from "../../api/client";

type Name = Schemas["CoefficientFigure"]["name"];

/** What coefficients are called; in the order of a choice. */
export const COEFFICIENT_NAMES: Record<Name, string> = {
  ALPHA_NOMINAL: "Krippendorff’s α, nominal",
  ALPHA_ORDINAL: "Krippendorff’s α, ordinal",
  ALPHA_INTERVAL: "Krippendorff’s α, interval",
  AC1: "Gwet’s AC1",
  AC2_ORDINAL: "Gwet’s AC2, ordinal",
  FLEISS_KAPPA: "Fleiss’ κ",
  EXACT: "pairs alike",
  WITHIN_ONE: "pairs at most a level apart",
  ICC_SINGLE_AGREEMENT: "ICC, one rater, agreement",
  ICC_MEAN_AGREEMENT: "ICC, mean of raters, agreement",
  ICC_SINGLE_CONSISTENCY: "ICC, one rater, consistency",
  KENDALL_W: "Kendall’s W",
};

/** Where each comes from, and what it needs. */
export const COEFFICIENT_SOURCES: Record<Name, string> = {
  ALPHA_NOMINAL: "Krippendorff (2011): any two different levels are equally far apart.",
  ALPHA_ORDINAL: "Krippendorff (2011): levels in their order, apart by how often those between them are used.",
  ALPHA_INTERVAL: "Krippendorff (2011): levels are equally spaced numbers.",
  AC1: "Gwet (2008): chance by how evenly levels are used; it does not fall where almost all grades are alike.",
  AC2_ORDINAL: "Gwet (2014): the same, near levels counting as partly alike.",
  FLEISS_KAPPA: "Fleiss (1971): only where each answer has the same number of grades.",
  EXACT: "The share of pairs of grades that are the same; not corrected for chance.",
  WITHIN_ONE: "The share of pairs of grades at most a level apart; not corrected for chance.",
  ICC_SINGLE_AGREEMENT: "Shrout and Fleiss (1979), ICC(2,1): over answers that all raters graded.",
  ICC_MEAN_AGREEMENT: "Shrout and Fleiss (1979), ICC(2,k): how far the mean of these raters can be relied on.",
  ICC_SINGLE_CONSISTENCY: "Shrout and Fleiss (1979), ICC(3,1): strict and kind raters may lie apart all the same.",
  KENDALL_W: "Kendall and Babington Smith (1939), ties corrected: the order of answers, over those that all graded.",
};
