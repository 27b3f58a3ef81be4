export { rubricOfStudy } from "./api";
export { ProposeAnchor } from "./ProposeAnchor";
export { LevelMark } from "./LevelMark";
export { WeightsEditor } from "./WeightsEditor";
