export { mySheets, sheetKeys } from "./api";
export { LeftBehind } from "./LeftBehind";
export { Reminders } from "./Reminders";
export { SheetList } from "./SheetList";
