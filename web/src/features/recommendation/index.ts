export { HowPage } from "./HowPage";
export { PromptTablePage } from "./prompts/PromptTablePage";
export { RecommendationPage } from "./RecommendationPage";
