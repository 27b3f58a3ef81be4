export { AccountsPage } from "./AccountsPage";
export { AdministrationLayout } from "./AdministrationLayout";
export { RecordPage } from "./RecordPage";
