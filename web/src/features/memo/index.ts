export { addToMemo, memosOfStudy } from "./api";
export { MemoPage } from "./MemoPage";
export { MemosPage } from "./MemosPage";
