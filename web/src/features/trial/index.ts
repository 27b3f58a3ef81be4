export { CheckPage } from "./CheckPage";
export { TrialsPage } from "./TrialsPage";
