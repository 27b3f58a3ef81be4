export { candidatesOfStudy } from "./api";
export { CandidateName } from "./CandidateName";
export { DECIDERS, DECIDERS_IN_ORDER, settingsLine } from "./words";
