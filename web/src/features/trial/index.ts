export { CheckPage } from "./CheckPage";
export { EvidencePage } from "./EvidencePage";
export { TrialsPage } from "./TrialsPage";
