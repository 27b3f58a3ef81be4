export { HiddenStandings } from "./HiddenStandings";
export { HowPage } from "./HowPage";
export { PromptTablePage } from "./prompts/PromptTablePage";
export { RecommendationPage } from "./RecommendationPage";
export { useReport } from "./shown";
export { StandingTable } from "./StandingSection";
export { Views } from "./Views";
