export { NextPage } from "./NextPage";
export { SincePage } from "./SincePage";
