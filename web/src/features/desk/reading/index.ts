export { type CodeOf, GradedAnswer } from "./GradedAnswer";
export { ReadAnswer } from "./ReadAnswer";
