import type { Schemas } from "../../api/client";
import { CandidateName } from "../candidate";

type Report = Schemas["RecommendationReport"];

export function CandidateOf({ report, id }: { report: Report; id: string }) {
  const index = report.candidates.findIndex((c) => c.id === id);
  return <CandidateName name={report.candidates[index]?.name ?? ""} index={index} />;
}
