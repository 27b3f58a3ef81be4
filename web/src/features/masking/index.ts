export { MaskingLine } from "./MaskingLine";
