export { BringInPage } from "./BringInPage";
