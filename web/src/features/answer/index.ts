export { answersOfPrompt } from "./api";
export { outcomeWord } from "./measures";
