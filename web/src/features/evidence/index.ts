export {
  evidenceOf,
  gradedEvidenceOf,
  repairableOf,
  repairPictureAt,
  repairsOf,
  resultOfRepair,
  useRepairAnswer,
} from "./api";
export { pageCell, type PageCell, pageRows, type PageRow, type PictureAt } from "./pages";
export { PageViewer, type Place, Thumbnail } from "./PagePictures";
export { RepairDialog } from "./RepairDialog";
export { Messages, Output, TrialItems } from "./TrialItems";
export { TrialsNote } from "./TrialsNote";
export { changePlace, changesLine, itemWords, outcomeWords, summaryWords, together, trialWords } from "./words";
export { WorksByTrial } from "./WorksByTrial";
export { WorksTable } from "./WorksTable";
