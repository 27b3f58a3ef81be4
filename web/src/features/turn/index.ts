export { TurnVerdict } from "./TurnVerdict";
export { WhereNeeded } from "./WhereNeeded";
export { WorkPage } from "./WorkPage";
