export { sourcesOfStudy } from "./api";
export { SourcePart } from "./SourcePart";
