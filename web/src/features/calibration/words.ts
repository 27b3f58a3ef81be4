import type { Schemas } from "../../api/client";

export const STAGES: Record<Schemas["CalibrationSummary"]["stage"], string> = {
  GRADING: "being graded",
  TALK: "all are in",
  AGAIN: "being graded again",
  OVER: "before the round",
};
