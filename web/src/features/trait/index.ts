export { TraitsPage } from "./TraitsPage";
