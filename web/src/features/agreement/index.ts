export { AgreementPage } from "./AgreementPage";
