export { ChangedFiles } from "./ChangedFiles";
export { type CodeOf, GradedAnswer } from "./GradedAnswer";
export { ReadAnswer } from "./ReadAnswer";
