export { RunLines } from "./RunLines";
