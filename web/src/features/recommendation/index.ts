export { RecommendationPage } from "./RecommendationPage";
