export { candidatesOfStudy } from "./api";
export { CandidateName } from "./CandidateName";
export { settingsLine } from "./words";
