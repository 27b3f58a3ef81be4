export {
  answersOfPrompt,
  bankKeys,
  kindsOfStudy,
  myReadings,
  promptsOfStudy,
  promptTitles,
  specimensOfStudy,
} from "./api";
export { KeyPoints } from "./KeyPoints";
export { StartingFiles } from "./StartingFiles";
export { SetAsideDialog } from "./SetAsideDialog";
