export { ClaimsPart } from "./ClaimsPart";
export { ExpectedPage } from "./ExpectedPage";
