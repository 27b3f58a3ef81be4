export { runsOfStudy } from "./api";
export { AskFollowUp } from "./AskFollowUp";
export { RunLines } from "./RunLines";
export { OUTCOMES, outcomeWord, whyNotThere } from "./words";
