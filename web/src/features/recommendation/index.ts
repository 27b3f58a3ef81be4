export { HowPage } from "./HowPage";
export { RecommendationPage } from "./RecommendationPage";
