export { answersOfPrompt } from "./api";
