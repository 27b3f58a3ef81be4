export { NotedAnswer } from "./NotedAnswer";
