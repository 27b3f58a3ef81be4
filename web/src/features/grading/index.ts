export { mySheets } from "./api";
export { SheetList } from "./SheetList";
