export { ReadAnswer } from "./ReadAnswer";
export { NotedAnswer } from "./NotedAnswer";
