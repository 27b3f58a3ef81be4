export { EvidencePage } from "./EvidencePage";
