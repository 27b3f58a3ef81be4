export { AuditTable } from "./AuditTable";
export { StudyRecordPage } from "./StudyRecordPage";
