export { rubricOfStudy } from "./api";
export { LevelMark } from "./LevelMark";
export { WeightsEditor } from "./WeightsEditor";
