export { CoversPage } from "./CoversPage";
export { HiddenStandings } from "./HiddenStandings";
export { HowPage } from "./HowPage";
export { PromptTablePage } from "./prompts/PromptTablePage";
export { RecommendationPage } from "./RecommendationPage";
export { useReport, useRobustness } from "./shown";
export { StandingsPage } from "./StandingsPage";
export { StandingTable } from "./StandingSection";
export { Views } from "./Views";
