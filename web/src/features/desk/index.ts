export { myReminders, mySheets, sheetKeys } from "./api";
export { confidenceWords, VERDICTS, WORKS } from "./cells";
export { LeftBehind } from "./LeftBehind";
export { Reminders } from "./Reminders";
export { SheetList } from "./SheetList";
