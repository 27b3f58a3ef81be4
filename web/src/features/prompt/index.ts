export { answersOfPrompt, kindsOfStudy, myReadings, promptsOfStudy, promptTitles } from "./api";
export { KeyPoints } from "./KeyPoints";
export { StartingFiles } from "./StartingFiles";
export { SetAsideDialog } from "./SetAsideDialog";
