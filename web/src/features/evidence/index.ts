export { evidenceOf, gradedEvidenceOf, repairableOf, repairsOf, resultOfRepair, useRepairAnswer } from "./api";
export { RepairDialog } from "./RepairDialog";
export { Messages, Output, TrialItems } from "./TrialItems";
export { TrialsNote } from "./TrialsNote";
export { changePlace, changesLine, itemWords, outcomeWords, summaryWords, together, trialWords } from "./words";
export { WorksByTrial } from "./WorksByTrial";
export { WorksTable } from "./WorksTable";
