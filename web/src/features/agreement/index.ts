export { AgreementPage } from "./AgreementPage";
export { COEFFICIENT_NAMES } from "./coefficients";
