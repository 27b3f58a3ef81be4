export { CheckPage } from "./CheckPage";
export { type ChangedFile, RepairDialog } from "./RepairDialog";
export { type Came, Messages, Output, TrialItems } from "./TrialItems";
export { evidenceOf, gradedEvidenceOf } from "./evidence";
export { WorksByTrial } from "./WorksByTrial";
export { WorksTable } from "./WorksTable";
export { TrialsPage } from "./TrialsPage";
export { outcomeWords, summaryWords } from "./words";
