export { CostPage } from "./CostPage";
export { teamCostsOf } from "./api";
export { UseFields, withUse, addressedUse } from "./use";
